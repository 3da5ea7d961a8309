/**
 * The methods: what is true of a way of brewing whichever school is followed, and the prep, finish and clean steps
 * that every brew of that method has.
 */
import type { MethodId, RecipeStep } from './recipe';

export type Method = {
  id: MethodId;
  name: string;
  /** What the cup is like. */
  character: string;
  /** Water kept by a gram of coffee, g/g. The bar's own weighed cups correct it later. */
  retentionGPerG: number;
  /** Water that is neither in the bed nor in the cup (steam, a siphon's lower globe), grams. */
  lossG: number;
  /** Hot water to rinse the filter or warm the glass, grams. */
  rinseG: number;
  /** p in t = t_ref x (dose / dose_ref)^p for the drawdown; null where nothing drains through a bed by itself. */
  drawdownExponent: number | null;
  anchorMark: string;
  endMark: string;
};

const METHOD_LIST: Method[] = [
  {
    id: 'cone',
    name: 'Cone',
    character: 'bright, clear',
    retentionGPerG: 2.0,
    lossG: 0,
    rinseG: 60,
    drawdownExponent: 0.35,
    anchorMark: 'first water',
    endMark: 'drops only',
  },
  {
    id: 'flat',
    name: 'Flat-bottom',
    character: 'even, sweet',
    retentionGPerG: 2.1,
    lossG: 0,
    rinseG: 60,
    drawdownExponent: 0.8,
    anchorMark: 'first water',
    endMark: 'drops only',
  },
  {
    id: 'hourglass',
    name: 'Hourglass',
    character: 'very clean',
    retentionGPerG: 2.2,
    lossG: 0,
    rinseG: 120,
    drawdownExponent: 0.5,
    anchorMark: 'first water',
    endMark: 'drops only',
  },
  {
    id: 'sock',
    name: 'Cloth sock',
    character: 'rich, coating',
    retentionGPerG: 1.7,
    lossG: 0,
    rinseG: 120,
    drawdownExponent: 0.35,
    anchorMark: 'first water',
    endMark: 'drops only',
  },
  {
    id: 'siphon',
    name: 'Siphon',
    character: 'full yet clean',
    retentionGPerG: 1.9,
    lossG: 18,
    rinseG: 80,
    drawdownExponent: null,
    anchorMark: 'coffee meets water',
    endMark: 'final bubbling',
  },
  {
    id: 'press',
    name: 'Press',
    character: 'heavy',
    retentionGPerG: 2.4,
    lossG: 0,
    rinseG: 100,
    drawdownExponent: null,
    anchorMark: 'last water in',
    endMark: 'plunge done',
  },
  {
    id: 'air-press',
    name: 'Air press',
    character: 'round, quick',
    retentionGPerG: 1.2,
    lossG: 0,
    rinseG: 60,
    drawdownExponent: null,
    anchorMark: 'first water',
    endMark: 'hiss',
  },
  {
    id: 'pot',
    name: 'Stove pot',
    character: 'dense, small',
    retentionGPerG: 1.5,
    lossG: 0,
    rinseG: 0,
    drawdownExponent: null,
    anchorMark: 'flame on',
    endMark: 'off the flame',
  },
];

export const METHODS = Object.fromEntries(METHOD_LIST.map((method) => [method.id, method])) as Record<
  MethodId,
  Method
>;

const tapped = (cue: string) => ({ by: 'cue', cue }) as const;

/** Water on, beans weighed and ground while it heats. The heating step lasts only what the weighing has not covered. */
const waterAndBeans: RecipeStep[] = [
  {
    id: 'fill',
    kind: 'fill',
    name: 'Fill the kettle',
    phase: 'prep',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 12 },
    end: tapped('filled and heating'),
  },
  {
    id: 'weigh',
    kind: 'weigh',
    name: 'Weigh the beans',
    phase: 'prep',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 12 },
    end: tapped('weighed, in the grinder'),
  },
  {
    id: 'grind',
    kind: 'grind',
    name: 'Grinding',
    phase: 'prep',
    attended: false,
    start: { afterS: 0 },
    lasts: { sPerDoseG: 1.2 },
    end: { by: 'clock' },
  },
  {
    id: 'heat',
    kind: 'heat',
    name: 'Water heating',
    phase: 'prep',
    attended: false,
    start: { afterS: 0 },
    lasts: 'heating',
    end: { by: 'clock' },
  },
];

const warmThrough: RecipeStep = {
  id: 'warm',
  kind: 'warm',
  name: 'Warming through',
  phase: 'prep',
  attended: false,
  start: { afterS: 0 },
  lasts: { s: 15 },
  end: { by: 'clock' },
};

const load = (what: string): RecipeStep => ({
  id: 'load',
  kind: 'load',
  name: what,
  phase: 'prep',
  attended: true,
  start: { afterS: 0 },
  lasts: { s: 15 },
  end: tapped('rinse water out, tared'),
  hint: 'Level the bed. The rinse water is what is most often forgotten.',
});

const clean = (lengthS: number): RecipeStep => ({
  id: 'clean',
  kind: 'clean',
  name: 'Knock out, rinse, reset',
  phase: 'clean',
  attended: true,
  start: { afterS: 0 },
  lasts: { s: lengthS },
  end: tapped('station ready'),
});

/** Prep of a paper cone: water, beans, filter set and rinsed, rinse water out, coffee in, level, tare. */
export const conePrep: RecipeStep[] = [
  ...waterAndBeans,
  {
    id: 'set-filter',
    kind: 'set-filter',
    name: 'Fold, set and rinse the filter',
    phase: 'prep',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 18 },
    end: tapped('rinsed'),
    hint: 'Fold along the seam, away from the pouring hand.',
  },
  warmThrough,
  load('Throw the rinse, load, tare'),
];

export const coneFinish: RecipeStep[] = [
  {
    id: 'serve',
    kind: 'serve',
    name: 'Filter off, swirl, cup, hand over',
    phase: 'finish',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 18 },
    end: tapped('handed over'),
    hint: 'Say “hot”.',
  },
  clean(20),
];

/** Prep of a steeping press: water, beans, glass warmed, rinse water out, coffee in, tare. */
export const pressPrep: RecipeStep[] = [
  ...waterAndBeans,
  {
    id: 'set-filter',
    kind: 'set-filter',
    name: 'Warm the press',
    phase: 'prep',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 10 },
    end: tapped('warm'),
  },
  warmThrough,
  load('Throw the water, load, tare'),
];

export const pressFinish: RecipeStep[] = [
  {
    id: 'serve',
    kind: 'serve',
    name: 'Decant at once, cup, hand over',
    phase: 'finish',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 18 },
    end: tapped('handed over'),
    window: { earlyS: 0, lateS: 20, penalty: 0.5 },
    hint: 'Say “hot”.',
  },
  clean(40),
];
