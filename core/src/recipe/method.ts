/**
 * The methods: what is true of a way of brewing whichever school is followed.
 */
import type { MethodId, Wish } from './recipe';

export type Method = {
  id: MethodId;
  name: string;
  /** What the cup is like. */
  character: string;
  /** 1 light to 5 heavy, and 1 cloudy to 5 very clear. */
  body: number;
  clarity: number;
  /** What a guest asks for that this answers, whichever the school. */
  suits: Wish[];
  /** Water kept by a gram of coffee with the usual filter, g/g. The bar's own weighed cups correct it later. */
  retentionGPerG: number;
  /** Water that is neither in the bed nor in the cup (steam, a siphon's lower globe), grams. */
  lossG: number;
  /** Hot water to rinse the filter or warm the glass, grams. */
  rinseG: number;
  /** p in t = t_ref x (dose / dose_ref)^p for the drawdown; null where nothing drains through a bed by itself. */
  drawdownExponent: number | null;
  /** All the brew water is in the brewer at once. */
  steeps: boolean;
  /** The brew water is poured from a kettle; otherwise it is weighed into the brewer itself. */
  usesKettle: boolean;
  /** How hot the coffee is as it meets ice, degrees Celsius, and where the two meet: never in a globe or a hot press. */
  meetsIceC: number;
  iceIn: 'the server' | 'a second vessel';
  /** A cup with no size: 250 ml, but a pot's is its own, millilitres. */
  usualCupMl: number;
  anchorMark: string;
  endMark: string;
};

const USUAL_CUP_ML = 250;

const POURED = {
  lossG: 0,
  steeps: false,
  usesKettle: true,
  meetsIceC: 72,
  iceIn: 'the server' as const,
  usualCupMl: USUAL_CUP_ML,
  anchorMark: 'first water',
  endMark: 'drops only',
};
const STEEPED = {
  lossG: 0,
  drawdownExponent: null,
  steeps: true,
  meetsIceC: 88,
  iceIn: 'a second vessel' as const,
  usualCupMl: USUAL_CUP_ML,
};

const METHOD_LIST: Method[] = [
  {
    ...POURED,
    id: 'cone',
    name: 'Cone',
    character: 'bright, clear',
    body: 2,
    clarity: 4,
    suits: ['clear'],
    retentionGPerG: 2.0,
    rinseG: 60,
    drawdownExponent: 0.35,
  },
  {
    ...POURED,
    id: 'flat',
    name: 'Flat-bottom',
    character: 'even, sweet',
    body: 3,
    clarity: 3,
    suits: ['sweet'],
    retentionGPerG: 2.1,
    rinseG: 60,
    drawdownExponent: 0.8,
  },
  {
    ...POURED,
    id: 'hourglass',
    name: 'Hourglass',
    character: 'very clean',
    body: 1,
    clarity: 5,
    suits: ['clear', 'to share'],
    retentionGPerG: 2.2,
    rinseG: 120,
    drawdownExponent: 0.5,
  },
  {
    ...POURED,
    id: 'sock',
    name: 'Cloth sock',
    character: 'rich, coating',
    body: 4,
    clarity: 3,
    suits: ['rich'],
    retentionGPerG: 1.7,
    rinseG: 120,
    drawdownExponent: 0.35,
  },
  {
    ...STEEPED,
    id: 'siphon',
    name: 'Siphon',
    character: 'full yet clean',
    body: 4,
    clarity: 4,
    suits: ['rich', 'to share'],
    retentionGPerG: 1.9,
    lossG: 18,
    rinseG: 80,
    usesKettle: false,
    anchorMark: 'coffee meets water',
    endMark: 'final bubbling',
  },
  {
    ...STEEPED,
    id: 'press',
    name: 'Press',
    character: 'heavy',
    body: 5,
    clarity: 1,
    suits: ['heavy', 'to share'],
    retentionGPerG: 2.4,
    meetsIceC: 86,
    rinseG: 100,
    usesKettle: true,
    anchorMark: 'last water in',
    endMark: 'plunge done',
  },
  {
    ...STEEPED,
    id: 'air-press',
    name: 'Air press',
    character: 'round, quick',
    body: 3,
    clarity: 3,
    suits: ['quick'],
    retentionGPerG: 1.2,
    meetsIceC: 82,
    iceIn: 'the server',
    rinseG: 60,
    usesKettle: true,
    anchorMark: 'first water',
    endMark: 'hiss',
  },
  {
    ...STEEPED,
    id: 'pressure-pot',
    name: 'Pressure pot',
    character: 'dense, small',
    body: 5,
    clarity: 2,
    suits: ['heavy'],
    retentionGPerG: 1.5,
    rinseG: 0,
    usesKettle: false,
    usualCupMl: 150,
    anchorMark: 'flame on',
    endMark: 'sputter',
  },
  {
    ...STEEPED,
    id: 'foam-pot',
    name: 'Long-handled pot',
    character: 'thick, with its grounds',
    body: 5,
    clarity: 1,
    suits: ['heavy'],
    // Nothing is filtered: what is in the pot is in the cup.
    retentionGPerG: 0,
    rinseG: 0,
    usesKettle: false,
    usualCupMl: 75,
    anchorMark: 'flame on',
    endMark: 'foam closes the ring',
  },
];

export const METHODS = Object.fromEntries(METHOD_LIST.map((method) => [method.id, method])) as Record<
  MethodId,
  Method
>;
