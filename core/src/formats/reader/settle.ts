/**
 * From statements to a recipe: what is said twice alike is one, what is said twice otherwise is asked, and what one figure and another
 * make together is worked out.
 */
import {
  SCHOOLS,
  type BedPreparation,
  type MethodId,
  type PlainAmount,
  type PlainFilter,
  type RoastLevel,
  type StartCue,
} from '../../recipe';
import type { WaterPath } from '../../pour';
import { G_PER_OZ } from '../../units';
import {
  middle,
  type Draft,
  type DraftPour,
  type DraftStir,
  type FactName,
  type Facts,
  type Found,
  type Said,
  type Series,
} from './draft';

export type ReadPour = {
  atS?: Said;
  waitS?: Said;
  /** What the scale reads after it, grams, where that is known. */
  toG?: number;
  /** As it was said. */
  amount: PlainAmount;
  waterC?: Said | 'room';
  path?: WaterPath;
  then?: 'swirl' | 'stir';
  cue?: StartCue;
};

/** What a text says of a recipe, and what of it is doubtful. Quantities in grams, °C and seconds. */
export type ReadText = {
  method?: MethodId;
  filter?: PlainFilter;
  name?: string;
  roast?: RoastLevel;
  doseG?: number;
  waterG?: number;
  waterC?: Said | 'room' | 'cold';
  offBoil?: true;
  ratio?: number;
  /** 0 coarsest to 100 finest. */
  grindBand?: number;
  servings?: number;
  bypassG?: number;
  iceG?: number;
  rinseG?: number;
  bed?: BedPreparation;
  /** What the brewer holds, ml. */
  brewerMl?: number;
  pours: ReadPour[];
  stirs: DraftStir[];
  steepS?: number;
  flameOffS?: number;
  plungeS?: number;
  pressForS?: Said;
  doneS?: [number, number];
  /** Parts of the text that were not understood, in its own words. */
  unread: string[];
  /** Fields that the text says twice otherwise, or that are needed and not said. */
  asked: string[];
  /** Fields that were filled with what is usual. */
  usual: string[];
  /** Which place of the text says what. */
  found: Found[];
};

const tenth = (value: number): number => Math.round(value * 10) / 10;
/** How far two statements of the same thing may differ: printed figures are rounded. */
const ALIKE: Partial<Record<FactName, number>> = {
  doseG: 0.15,
  waterG: 2,
  waterC: 0.5,
  doneS: 12,
  ratio: 0.3,
  grindBand: 14,
};
/** A ratio beside grams is rounded by so much. */
const RATIO_SLACK = 0.6;

type SingleFact =
  | 'brewerMl'
  | 'doseG'
  | 'waterG'
  | 'bypassG'
  | 'iceG'
  | 'rinseG'
  | 'steepS'
  | 'flameOffS'
  | 'plungeS';

/** @param isOpen whether an amount of the text was not understood, so that a pour may be missing */
export function settle(draft: Draft, isOpen: boolean): ReadText {
  const asked = new Set<string>();
  const one = <Name extends FactName>(name: Name): Facts[Name] | undefined => {
    const statements = draft.facts[name] as { value: Facts[Name] }[] | undefined;
    if (!statements) return undefined;
    const [head, ...others] = statements.map(({ value }) => value);
    if (others.every((other) => isAlike(name, head!, other))) return head;
    asked.add(name);
    return undefined;
  };
  /** As one figure, where a range is said. */
  const single = (name: SingleFact): number | undefined => {
    const value = one(name);
    return value === undefined ? undefined : middle(value);
  };
  const read: ReadText = {
    pours: [],
    stirs: draft.isPoured ? [] : draft.stirs,
    unread: [],
    asked: [],
    usual: [],
    found: draft.found,
  };
  const put = <Key extends keyof ReadText>(key: Key, value: ReadText[Key] | undefined) => {
    if (value !== undefined) read[key] = value;
  };
  put('method', draft.method);
  put('filter', one('filter'));
  put('name', one('name'));
  put('roast', one('roast'));
  put('bed', one('bed'));
  put('grindBand', one('grindBand'));
  put('servings', one('servings'));
  put('waterC', one('waterC'));
  put('pressForS', one('pressForS'));
  for (const key of ['steepS', 'flameOffS', 'plungeS', 'bypassG', 'iceG', 'rinseG', 'brewerMl'] as const)
    put(key, single(key));
  if (one('offBoil')) read.offBoil = true;
  const done = one('doneS');
  if (done !== undefined) read.doneS = typeof done === 'number' ? [done, done] : done;

  const amounts = dosesAndWater(asked, { one, single, servings: read.servings });
  const { doseG } = amounts;
  let { waterG } = amounts;
  put('ratio', amounts.ratio);
  if (draft.isPoured) {
    const settled = settlePours(draft, doseG, waterG);
    read.pours = isOpen ? [] : settled.pours;
    if (isOpen && settled.pours.length > 0) asked.add('pours');
    if (settled.waterG !== undefined && waterG === undefined && !asked.has('waterG')) waterG = settled.waterG;
    if (settled.isDoubtful) asked.add('pours');
    if (read.pours.length === 0 && draft.method !== undefined) asked.add('pours');
    read.pours.forEach(({ atS, waitS, cue }, n) => {
      if (n > 0 && atS === undefined && waitS === undefined && !cue) asked.add(`pours.${n + 1}`);
    });
  }
  for (const field of timesThatClash(read)) asked.add(field);
  if (doseG !== undefined) read.doseG = Math.round(doseG * 100) / 100;
  else asked.add('doseG');
  if (waterG !== undefined) read.waterG = tenth(waterG);
  else asked.add('waterG');
  if (draft.method === undefined) asked.add('method');
  read.asked = [...asked];
  settleTemperatures(read);
  fillUsual(read);
  if (read.filter === undefined && draft.method === 'sock') read.filter = 'cloth';
  return read;
}

type Asking = {
  one: <Name extends FactName>(name: Name) => Facts[Name] | undefined;
  single: (name: 'doseG' | 'waterG') => number | undefined;
  servings: number | undefined;
};

/** Coffee and water: as they are said, counted in spoons and cups, or the one made of the other by the ratio. */
function dosesAndWater(
  asked: Set<string>,
  { one, single, servings }: Asking,
): { doseG?: number | undefined; waterG?: number | undefined; ratio?: number } {
  let doseG = single('doseG');
  const [spoons, spoonG] = [one('spoons'), one('spoonG')];
  if (doseG === undefined && !asked.has('doseG') && spoons !== undefined && spoonG !== undefined)
    doseG = spoons * spoonG;
  const perCup = one('perCupG');
  if (doseG === undefined && !asked.has('doseG') && perCup !== undefined && servings !== undefined)
    doseG = middle(perCup) * servings;
  let waterG = single('waterG');
  const [cups, cupMl] = [one('cups'), one('cupMl')];
  if (waterG === undefined && !asked.has('waterG') && cups !== undefined && cupMl !== undefined)
    waterG = cups * cupMl;
  const perCupWaterG = one('perCupWaterG');
  if (waterG === undefined && !asked.has('waterG') && perCupWaterG !== undefined && servings !== undefined)
    waterG = middle(perCupWaterG) * servings;
  const ratio = one('ratio');
  if (ratio !== undefined) {
    if (doseG !== undefined && waterG !== undefined) {
      if (Math.abs(waterG / doseG - ratio) > RATIO_SLACK) asked.add('ratio');
    } else if (doseG !== undefined && !asked.has('waterG')) waterG = doseG * ratio;
    else if (waterG !== undefined && !asked.has('doseG')) doseG = waterG / ratio;
    else return { ratio };
  }
  return { doseG, waterG };
}

/** How far two ways of saying one moment may differ, seconds. */
const SAME_MOMENT_S = 15;

/** Times that cannot both be: a steep that ends otherwise than its flame or plunge, an end before the last pour. */
function timesThatClash({ steepS, flameOffS, plungeS, doneS, pours }: ReadText): string[] {
  const lastS = pours.at(-1)?.atS;
  const ends = { flameOffS, plungeS };
  const clashing = Object.entries(ends).filter(
    ([, atS]) => steepS !== undefined && atS !== undefined && Math.abs(atS - steepS) > SAME_MOMENT_S,
  );
  const isEarly = doneS !== undefined && lastS !== undefined && doneS[1] <= middle(lastS);
  return [...clashing.map(([field]) => field), ...(isEarly ? ['doneS'] : [])];
}

function isAlike<Name extends FactName>(name: Name, one: Facts[Name], other: Facts[Name]): boolean {
  if (one === other) return true;
  const [a, b] = [one, other] as [unknown, unknown];
  const isFigure = (value: unknown): value is Said => typeof value === 'number' || Array.isArray(value);
  if (!isFigure(a) || !isFigure(b)) return false;
  const [lowA, highA] = typeof a === 'number' ? [a, a] : a;
  const [lowB, highB] = typeof b === 'number' ? [b, b] : b;
  return Math.max(lowA, lowB) - Math.min(highA, highB) <= (ALIKE[name] ?? 0);
}

/** What the amounts of pours are worked out with. */
type Known = { doseG: number | undefined; waterG: number | undefined; ounces: number };
type Way = 'to' | 'add';
type SettledPours = { pours: ReadPour[]; waterG?: number; isDoubtful: boolean };

function settlePours(draft: Draft, doseG: number | undefined, waterG: number | undefined): SettledPours {
  const known = { doseG, waterG, ounces: draft.inOunces ? G_PER_OZ : 1 };
  const list = withSeries(draft, known);
  if (list === null) return { pours: [], isDoubtful: true };
  const { readings, isSound, isOpen } = bestReadings(list, known);
  const last = readings.at(-1);
  const pours = list.map(({ atS, waitS, amount, path, then, cue, waterC }, n): ReadPour => {
    const toG = readings[n];
    return {
      ...(atS === undefined ? {} : { atS }),
      ...(waitS === undefined || atS !== undefined ? {} : { waitS }),
      amount: plainAmount(amount, known),
      ...(toG === undefined || isOpen ? {} : { toG: tenth(toG) }),
      ...(path ? { path } : {}),
      ...(then ? { then } : {}),
      ...(cue ? { cue } : {}),
      ...(waterC === undefined ? {} : { waterC }),
    };
  });
  const isWater =
    waterG === undefined && last !== undefined && (list.length > 1 || list[0]!.amount !== 'rest');
  return { pours, ...(isWater ? { waterG: last } : {}), isDoubtful: isOpen || !isSound };
}

/** Bare grams are readings where those come out, else what is added; where both do, as the other pours are said, or nobody knows. */
function bestReadings(list: readonly DraftPour[], known: Known): Readings & { isOpen: boolean } {
  const to = readingsOf(list, 'to', known);
  const hasBare = list.some(({ amount }, n) => n > 0 && typeof amount === 'object' && 'g' in amount);
  if (!hasBare) return { ...to, isOpen: false };
  const add = readingsOf(list, 'add', known);
  if (!add.isSound || !to.isSound) return { ...(add.isSound ? add : to), isOpen: false };
  const isSaid = (way: 'toG' | 'addG') =>
    list.slice(1).some(({ amount }) => typeof amount === 'object' && way in amount);
  const [saysTo, saysAdd] = [isSaid('toG'), isSaid('addG')];
  const differ = to.readings.some((grams, n) => grams !== add.readings[n]);
  return { ...(saysAdd && !saysTo ? add : to), isOpen: differ && saysTo === saysAdd };
}

function plainAmount(amount: DraftPour['amount'], known: Known): PlainAmount {
  if (amount === 'rest') return 'rest';
  const grams = tenth(gramsOf(amount, 'to', 0, known) ?? 0);
  return 'addG' in amount ? { addG: grams } : 'g' in amount ? { g: grams } : { toG: grams };
}

type Readings = { readings: (number | undefined)[]; isSound: boolean };

/** Printed readings may miss the water by so much, grams. */
const ROUNDED_G = 2.5;
/** Where no water is said, what pours come to is some coffee's water within these ratios. */
const LIKELY_RATIO = { min: 8, max: 22 };

function readingsOf(list: readonly DraftPour[], bare: Way, known: Known): Readings {
  const { doseG, waterG } = known;
  let pouredG = 0;
  let isSound = true;
  const readings = list.map(({ amount }, n) => {
    const grams = gramsOf(amount, bare, pouredG, known);
    const isTooMuch = waterG !== undefined && grams !== undefined && grams > waterG + ROUNDED_G;
    const isEarly = amount === 'rest' && n < list.length - 1;
    if (grams === undefined || grams <= pouredG || isTooMuch || isEarly) isSound = false;
    pouredG = grams ?? pouredG;
    return grams;
  });
  if (list.length === 0) return { readings, isSound };
  const ratio = doseG === undefined ? LIKELY_RATIO.min : pouredG / doseG;
  const isLikely =
    waterG === undefined
      ? ratio >= LIKELY_RATIO.min && ratio <= LIKELY_RATIO.max
      : pouredG >= waterG - ROUNDED_G;
  return { readings, isSound: isSound && isLikely };
}

function gramsOf(
  amount: DraftPour['amount'],
  bare: Way,
  pouredG: number,
  { doseG, waterG, ounces }: Known,
): number | undefined {
  if (amount === 'rest') return waterG;
  if ('share' in amount) return waterG === undefined ? undefined : amount.share * waterG;
  if ('timesDose' in amount) return doseG === undefined ? undefined : amount.timesDose * doseG;
  const factor = amount.isBare ? ounces : 1;
  if ('toG' in amount) return middle(amount.toG) * factor;
  if ('addG' in amount) return pouredG + middle(amount.addG) * factor;
  return (bare === 'to' ? 0 : pouredG) + middle(amount.g) * factor;
}

/** Pours of which only a pattern is said are put where they were said; null where the pattern does not come out. */
function withSeries(draft: Draft, known: Known): DraftPour[] | null {
  const { waterG } = known;
  const made: DraftPour[] = [];
  for (let at = 0; at <= draft.pours.length; at += 1) {
    for (const each of draft.series.filter(({ after }) => after === at)) {
      const beforeG = readingsOf(made, 'to', known).readings.at(-1) ?? 0;
      const untilG = each.untilG === undefined ? waterG : middle(each.untilG);
      const eachG = each.eachG === undefined ? undefined : middle(each.eachG);
      const count =
        each.count ??
        (eachG === undefined || untilG === undefined ? undefined : Math.round((untilG - beforeG) / eachG));
      const addG =
        eachG ?? (count === undefined || untilG === undefined ? undefined : (untilG - beforeG) / count);
      if (count === undefined || addG === undefined || count > 20 || count < 1 || !(addG > 0)) return null;
      for (let n = 0; n < count; n += 1) {
        // The last brings it to what is said, where the pattern comes out only nearly.
        const isLast = n === count - 1 && each.untilG !== undefined;
        made.push({ amount: isLast ? { toG: untilG! } : { addG }, ...startIn(made, each, n) });
      }
    }
    if (at < draft.pours.length) made.push(draft.pours[at]!);
  }
  for (const { which, then } of draft.deeds)
    for (const each of which === 'each' ? made : made.slice(...(which === 'first' ? [0, 1] : [-1])))
      each.then = then;
  return made;
}

function startIn(
  made: readonly DraftPour[],
  { everyS, start }: Series,
  n: number,
): Pick<DraftPour, 'atS' | 'waitS'> {
  if (made.length === 0) return { atS: 0 };
  const before = made.at(-1)!;
  if (n === 0) {
    const atS = start.atS ?? start.waitS;
    if (atS !== undefined) return { atS };
    return everyS !== undefined && made.length === 1 && before.atS === 0 ? { atS: everyS } : {};
  }
  if (everyS === undefined) return {};
  return before.atS === undefined ? { waitS: everyS } : { atS: middle(before.atS) + middle(everyS) };
}

/** Where no temperature is said, the method's usual one. */
function fillUsual(read: ReadText): void {
  const { method, waterC, offBoil } = read;
  if (method === undefined || waterC !== undefined || offBoil || read.asked.includes('waterC')) return;
  read.waterC = SCHOOLS.find((school) => school.method === method)!.waterC;
  read.usual.push('waterC');
}

/** One temperature is the recipe's; where pours differ, each keeps its own, and the hottest that is said first is the recipe's. */
function settleTemperatures(read: ReadText): void {
  const hot = read.pours.flatMap(({ waterC }) =>
    waterC === undefined || waterC === 'room' || middle(waterC) < 50 ? [] : [waterC],
  );
  if (read.waterC === undefined && !read.asked.includes('waterC') && hot.length > 0) read.waterC = hot[0]!;
  for (const pour of read.pours)
    if (
      pour.waterC !== undefined &&
      pour.waterC !== 'room' &&
      read.waterC !== undefined &&
      typeof read.waterC !== 'string' &&
      middle(pour.waterC) === middle(read.waterC)
    )
      delete pour.waterC;
}
