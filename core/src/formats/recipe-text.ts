/**
 * Reads a recipe as it stands on a bag of coffee or in a message. What is not understood is marked, and what could mean two
 * things is asked: nothing is guessed in silence.
 */
import type { WaterPath } from '../pour';
import type { MethodId, PlainPour, PlainRecipe } from '../recipe';
import { clausesOf, tokensOf, type FigureKind, type Token } from './recipe-tokens';

export type ReadText = Partial<Omit<PlainRecipe, 'pours' | 'endS'>> & {
  pours: PlainPour[];
  endS?: { from: number; to: number };
  /** Parts of the text that were not understood, in its own words. */
  unread: string[];
};

/** Words that say nothing by themselves. */
const FILLERS =
  'a an the of with at and for in it is your you use using add adding pour pouring pours poured water hot brew brewing then next now recipe by on about around approx approximately ca circa roughly let start begin first second third fourth fifth last final finally each more weight weigh time timer filtered fresh freshly kettle temperature temp heat over out until till per total up so that into server my our ground grinds after again once';

const GRINDS: readonly [RegExp, number][] = [
  [/extra[- ]?coarse(?:ly)?/i, 10],
  [/medium[- ]?coarse(?:ly)?/i, 34],
  [/medium[- ]?fine(?:ly)?/i, 54],
  [/extra[- ]?fine(?:ly)?/i, 82],
  [/coarse(?:ly)?/i, 22],
  [/fine(?:ly)?/i, 64],
  [/medium/i, 46],
];
const METHOD_WORDS: readonly [RegExp, MethodId][] = [
  [/\bair[- ]?press\b/i, 'air-press'],
  [/\bflat[- ]?bottom(?:ed)?\b/i, 'flat'],
  [/\bhourglass\b/i, 'hourglass'],
  [/\bsiphon\b|\bsyphon\b/i, 'siphon'],
  [/\b(?:cloth )?sock\b|\bcloth\b/i, 'sock'],
  [/\bcone\b/i, 'cone'],
  [/\bpress\b(?! (?:down|slowly|gently|for|until))/i, 'press'],
];

/** What a recipe can be expected to say, so that a slip of the pen is marked. */
const WATER_C = { min: 50, max: 100 };
const RATIO = { min: 6, max: 25 };
const DOSE_G = { min: 5, max: 90 };
/** A single time is about that time, seconds. */
const END_SLACK_S = 10;

type Start = Exclude<PlainPour['start'], 'not said'>;
type Figure = Exclude<Token, { is: 'word' }>;

/** What is read so far, with what waits for what comes after it. */
type Reading = { read: ReadText; onlyPours?: true; ratio?: number; nextStart?: Start };

/** One clause: its figures are taken out as they are understood, its words become known. */
type Clause = {
  text: string;
  words: readonly string[];
  figures: readonly Figure[];
  says: (words: string) => boolean;
  /** Takes the first figure of a kind; what is given back was not understood after all. */
  take: (...kinds: FigureKind[]) => Figure | undefined;
  giveBack: (figure: Figure) => void;
  knows: (words: string) => void;
  isUnderstood: () => boolean;
};

/** Reads all that it can. Nothing where there is nothing to read. */
export function readRecipeText(text: string): ReadText {
  const reading: Reading = { read: { pours: [], unread: [] } };
  readClauses(text, 1, READERS, reading);
  settleRatio(reading);
  return reading.read;
}

export type KnownOfPours = {
  /** What a figure without a unit is worth, grams: 1, or an ounce where people write ounces. */
  bareG: number;
  /** For “2x” and “60 %”. */
  doseG?: number;
  waterG?: number;
};

/** Reads the pours alone, where nothing else can be meant: the first figure is a pour, and no dose. */
export function readPours(
  text: string,
  { bareG, doseG, waterG }: KnownOfPours,
): Pick<ReadText, 'pours' | 'unread'> {
  const read: ReadText = {
    pours: [],
    unread: [],
    ...(doseG === undefined ? {} : { doseG }),
    ...(waterG === undefined ? {} : { waterG }),
  };
  readClauses(text, bareG, POUR_READERS, { read, onlyPours: true });
  return { pours: read.pours, unread: read.unread };
}

function readClauses(text: string, bareG: number, readers: readonly Reader[], reading: Reading): void {
  for (const part of clausesOf(text)) {
    const clause = openClause(part, bareG);
    for (const reader of readers) if (reader(clause, reading)) break;
    if (!clause.isUnderstood()) mark(reading.read, part);
  }
}

function mark(read: ReadText, text: string): void {
  if (read.unread.at(-1) !== text) read.unread.push(text);
}

function openClause(text: string, bareG: number): Clause {
  const tokens = tokensOf(text);
  const words = tokens.flatMap((token) => (token.is === 'word' ? [token.text] : []));
  const figures = tokens
    .filter((token): token is Figure => token.is !== 'word')
    .map((figure) => (figure.is === 'number' ? { ...figure, value: figure.value * bareG } : figure));
  const left = new Set(figures);
  const known = new Set(FILLERS.split(' '));
  return {
    text,
    words,
    figures,
    says: (any) => any.split(' ').some((word) => words.includes(word)),
    take: (...kinds) => {
      const found = figures.find((figure) => left.has(figure) && kinds.includes(figure.is));
      if (found) left.delete(found);
      return found;
    },
    giveBack: (figure) => left.add(figure),
    knows: (more) => more.split(' ').forEach((word) => known.add(word)),
    isUnderstood: () => left.size === 0 && words.every((word) => known.has(word)),
  };
}

/** Keeps a figure; said twice and otherwise, which of the two holds is not for us to say. */
function keep<Key extends 'doseG' | 'waterG' | 'waterC' | 'grindBand' | 'method'>(
  { read }: Reading,
  key: Key,
  value: ReadText[Key],
  clause: Clause,
): void {
  if (read[key] !== undefined && read[key] !== value) mark(read, clause.text);
  else read[key] = value;
}

type Reader = (clause: Clause, reading: Reading) => boolean;

const BLOOMS = 'bloom blooming pre-infuse preinfuse pre-infusion preinfusion';
const WAITS = 'wait pause hold leave';
const SHORT_DEEDS = 'swirl stir gentle quick it brewer slurry';

const methodAndGrind: Reader = (clause, reading) => {
  const found = METHOD_WORDS.find(([pattern]) => pattern.test(clause.text));
  if (found) {
    keep(reading, 'method', found[1], clause);
    const word = found[0].exec(clause.text)![0].toLowerCase();
    clause.knows(`${word} ${word.replaceAll('-', ' ')} dripper brewer carafe filter paper`);
  }
  const grind = GRINDS.find(([pattern]) => pattern.test(clause.text));
  if (!grind) return false;
  const word = grind[0].exec(clause.text)![0].toLowerCase();
  const isGrind =
    clause.says('grind grinds ground') ||
    /\b(?:coarse|fine)/i.test(clause.text) ||
    word === clause.text.toLowerCase();
  if (!isGrind) return false;
  keep(reading, 'grindBand', grind[1], clause);
  clause.knows(`grind ${word} ${word.replaceAll('-', ' ')} size`);
  return false;
};

const temperature: Reader = (clause, reading) => {
  const found = clause.take('temperature');
  if (!found) return false;
  if (found.value < WATER_C.min || found.value > WATER_C.max) clause.giveBack(found);
  else keep(reading, 'waterC', tenth(found.value), clause);
  return false;
};

/** "Total 2:50 to 3:20", "plunge at 4:00": when it is done. */
const end: Reader = (clause, { read }) => {
  const named =
    clause.says('total drawdown finish finished done dry drained ends end ready complete plunge') ||
    (clause.says('time') && clause.says('brew contact'));
  const times = clause.figures.filter(({ is }) => is === 'clock' || is === 'span');
  if (!named || times.length === 0 || times.length > 2 || times.length !== clause.figures.length)
    return false;
  const [from, to] = times as [Figure, Figure?];
  times.forEach(() => clause.take('clock', 'span'));
  clause.knows(
    'drawdown finish finished done dry drained ends end ready complete plunge contact should be to between down',
  );
  if (read.endS) mark(read, clause.text);
  read.endS ??= {
    from: from.value - (to ? 0 : END_SLACK_S),
    to: (to ?? from).value + (to ? 0 : END_SLACK_S),
  };
  return true;
};

/** 1:16, or grams per litre. Where a time is as likely as a ratio, the clause decides: no pour has been read before it. */
const ratio: Reader = (clause, reading) => {
  const perLitre = clause.take('per litre');
  if (perLitre) reading.ratio = 1000 / perLitre.value;
  const mayBe = clause.figures.find(({ is, value }) => is === 'clock' && value >= 66 && value <= 85);
  const isRatio =
    clause.says('ratio') || (reading.read.pours.length === 0 && !clause.says(BLOOMS) && !clause.says('rest'));
  const found = clause.take('ratio') ?? (mayBe && isRatio ? clause.take('clock') : undefined);
  if (!found) return false;
  const value = found.is === 'clock' ? found.value - 60 : found.value;
  clause.knows('ratio to coffee');
  if (value < RATIO.min || value > RATIO.max) clause.giveBack(found);
  else reading.ratio = value;
  return false;
};

const doseAndWater: Reader = (clause, reading) => {
  const timed = clause.figures.some(({ is }) => is === 'clock');
  if (timed || clause.says(BLOOMS)) return false;
  if (clause.says('coffee beans bean dose grounds')) {
    const mass = clause.take('mass');
    if (mass) keep(reading, 'doseG', tenth(mass.value), clause);
    if (mass) clause.knows('coffee beans bean dose grounds');
  }
  if (clause.says('water') && reading.read.pours.length === 0 && !clause.says('rest wait add')) {
    const water = clause.take('volume', 'liquid ounces', 'mass');
    if (water?.plus) clause.giveBack(water);
    else if (water) keep(reading, 'waterG', tenth(water.value), clause);
  }
  return false;
};

const bloom: Reader = (clause, reading) => {
  if (!clause.says(BLOOMS)) return false;
  const { read } = reading;
  const at = clause.take('clock');
  const amount = clause.take('mass', 'volume', 'times');
  const grams =
    amount?.is === 'times' ? (read.doseG === undefined ? null : amount.value * read.doseG) : amount?.value;
  // How much is not known, or there has been a pour: then it is no bloom that could be read.
  if (!amount || grams === null || grams === undefined || read.pours.length > 0) {
    for (const figure of [at, amount]) if (figure) clause.giveBack(figure);
    return true;
  }
  clause.knows(`${BLOOMS} ${WAITS} ${SHORT_DEEDS} to rest dose coffee grounds`);
  const lasts = clause.take('span', 'clock');
  read.pours.push({
    start: { atS: at?.value ?? 0 },
    amount: { toG: tenth(grams) },
    ...thenOf(clause),
    ...pathOf(clause),
  });
  if (lasts) reading.nextStart = clause.says(WAITS) ? { waitS: lasts.value } : { atS: lasts.value };
  return true;
};

/** "Wait 30 s", "wait until 1:10". */
const wait: Reader = (clause, reading) => {
  const rests = clause.says('rest') && clause.figures.some(({ is }) => is === 'span');
  if ((!clause.says(WAITS) && !rests) || clause.figures.some(({ is }) => is === 'mass' || is === 'volume'))
    return false;
  const time = clause.take('span', 'clock');
  clause.knows(`${WAITS} rest to`);
  if (time) reading.nextStart = time.is === 'clock' ? { atS: time.value } : { waitS: time.value };
  return true;
};

/** "0:36 +94", "to 135 g", "add 100 g", "1:12 rest". */
const pour: Reader = (clause, reading) => {
  const { read, onlyPours = false } = reading;
  const time = clause.figures.find(({ is }) => is === 'clock');
  const hasRest = clause.says('rest remaining remainder');
  const amount =
    clause.figures.find(({ is }) => ['mass', 'volume', 'liquid ounces', 'percent'].includes(is)) ??
    clause.figures.find(
      ({ is, plus }) => is === 'number' && (time ?? (plus || onlyPours || clause.says('pour add to'))),
    );
  const asked =
    onlyPours ||
    clause.says('pour pours pouring add more another') ||
    amount?.plus === true ||
    read.pours.length > 0;
  if (!time && !(amount && asked) && !(hasRest && read.pours.length > 0)) return false;
  const adds = amount?.plus === true || clause.says('more another add');
  const reaches = clause.says('to until till reach reaches total up reads') && !amount?.plus;
  const grams =
    amount?.is === 'percent'
      ? read.waterG === undefined
        ? null
        : (amount.value / 100) * read.waterG
      : amount?.value;
  const said: PlainPour['amount'] | null =
    amount && grams !== null && grams !== undefined
      ? adds && reaches
        ? { g: tenth(grams) }
        : adds
          ? { addG: tenth(grams) }
          : reaches || amount.is === 'percent'
            ? { toG: tenth(grams) }
            : { g: tenth(grams) }
      : hasRest
        ? 'rest'
        : null;
  if (said === null) return shortDeed(clause, reading);
  clause.take('clock');
  if (amount) clause.take(amount.is);
  clause.knows(`${SHORT_DEEDS} to until reach reaches reads scale another rest remaining remainder`);
  const start = time
    ? { atS: time.value }
    : (reading.nextStart ?? (read.pours.length === 0 ? { atS: 0 } : 'not said'));
  delete reading.nextStart;
  read.pours.push({ start, amount: said, ...thenOf(clause), ...pathOf(clause) });
  return true;
};

/** A swirl or a stir belongs to the pour before it. */
const shortDeed: Reader = (clause, { read }) => {
  const then = thenOf(clause);
  const last = read.pours.at(-1);
  if (!then.then || !last || clause.figures.length > 0) return false;
  last.then = then.then;
  clause.knows(SHORT_DEEDS);
  return true;
};

/** Figures with nothing beside them: the first mass is the dose, a volume or a much larger mass the water. */
const bareFigures: Reader = (clause, reading) => {
  const { read } = reading;
  const volume = clause.take('volume', 'liquid ounces');
  if (volume) keep(reading, 'waterG', tenth(volume.value), clause);
  for (let mass = clause.take('mass'); mass; mass = clause.take('mass')) {
    const grams = tenth(mass.value);
    const { doseG, waterG } = read;
    if (!mass.plus && doseG === undefined && grams >= DOSE_G.min && grams <= DOSE_G.max) read.doseG = grams;
    else if (!mass.plus && waterG === undefined && doseG !== undefined && within(grams / doseG, RATIO))
      read.waterG = grams;
    else mark(read, clause.text);
  }
  return false;
};

/** What stands first and has no figures is what it is called. */
const name: Reader = (clause, { read }) => {
  const { doseG, waterG, method } = read;
  const isFirst =
    [read.name, doseG, waterG, method].every((each) => each === undefined) && read.pours.length === 0;
  if (
    !isFirst ||
    /\d|coffee|water|spoon/i.test(clause.text) ||
    clause.isUnderstood() ||
    read.unread.length > 0
  )
    return false;
  read.name = clause.text.replace(/[:.]$/, '').slice(0, 60);
  clause.knows(clause.words.join(' '));
  return true;
};

/** In this order: what is named before what stands by itself. */
const READERS: readonly Reader[] = [
  methodAndGrind,
  temperature,
  end,
  ratio,
  doseAndWater,
  bloom,
  wait,
  pour,
  shortDeed,
  bareFigures,
  name,
];

/** What can stand in a field for pours alone. */
const POUR_READERS: readonly Reader[] = [bloom, wait, pour, shortDeed];

const tenth = (value: number): number => Math.round(value * 10) / 10;
const within = (value: number, { min, max }: { min: number; max: number }) => value >= min && value <= max;

const thenOf = (clause: Clause): Pick<PlainPour, 'then'> =>
  clause.says('swirl') ? { then: 'swirl' } : clause.says('stir') ? { then: 'stir' } : {};

/** Where the water goes, where one path is named; of two the clause does not tell which comes first. */
function pathOf(clause: Clause): Pick<PlainPour, 'path'> {
  const named = PATHS.filter(([words]) => clause.says(words));
  const [only] = named;
  if (!only || named.length > 1) return {};
  clause.knows(`${only[0]} outwards`);
  return { path: only[1] };
}
const PATHS: readonly [string, WaterPath][] = [
  ['spiral spirals circles circling', 'spiral'],
  ['centre center middle', 'centre'],
  ['ring', 'ring'],
  ['edge', 'edge'],
];

/** Of dose and water the ratio gives the other; the last reading is the water where none was said. */
function settleRatio({ read, ratio: value }: Reading): void {
  const last = read.pours.at(-1)?.amount;
  if (value !== undefined) {
    if (read.waterG === undefined && read.doseG !== undefined) read.waterG = tenth(read.doseG * value);
    else if (read.doseG === undefined && read.waterG !== undefined) read.doseG = tenth(read.waterG / value);
    else if (read.doseG && read.waterG && Math.abs(read.waterG / read.doseG - value) > RATIO_SLACK)
      mark(read, `1:${tenth(value)}`);
  }
  if (read.waterG === undefined && typeof last === 'object' && 'toG' in last && read.pours.length > 1)
    read.waterG = last.toG;
}

/** Printed ratios are rounded by so much. */
const RATIO_SLACK = 0.6;
