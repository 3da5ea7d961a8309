/**
 * What has been read so far: every statement with its place, so that two that differ are seen, and the pours and stirs in the
 * order in which they are said.
 */
import type { WaterPath } from '../../pour';
import type { BedPreparation, MethodId, PlainFilter, RoastLevel, StartCue } from '../../recipe';
import type { Figure } from './figures';
import type { Match } from './grammar';

/** One figure, or the ends of the range that is said. */
export type Said = number | [number, number];

export type Facts = {
  method: MethodId;
  filter: PlainFilter;
  name: string;
  roast: RoastLevel;
  doseG: Said;
  waterG: Said;
  waterC: Said | 'room' | 'cold';
  offBoil: boolean;
  ratio: number;
  grindBand: number;
  servings: number;
  bypassG: Said;
  iceG: Said;
  rinseG: Said;
  steepS: Said;
  flameOffS: Said;
  plungeS: Said;
  pressForS: Said;
  doneS: Said;
  bed: BedPreparation;
  /** What the brewer holds. */
  brewerMl: Said;
  /** What a cup of the bar's, and a spoon, hold. */
  perCupG: Said;
  perCupWaterG: Said;
  spoons: number;
  spoonG: number;
  cups: number;
  cupMl: number;
};
export type FactName = keyof Facts;

/** `isBare`: no unit is said, so that it may be ounces. */
export type PourAmount =
  | (({ toG: Said } | { addG: Said } | { g: Said }) & { isBare?: true })
  | { share: number }
  | { timesDose: number }
  | 'rest';
export type Start = { atS?: Said; waitS?: Said };
export type DraftPour = Start & {
  amount: PourAmount;
  path?: WaterPath;
  then?: 'swirl' | 'stir';
  cue?: StartCue;
  waterC?: Said | 'room';
  isBloom?: true;
};
export type DraftStir = { atS?: Said; times?: Said; forS?: Said };
/** Pours of which only how many there are is said, and how much each is or until when. */
export type Series = {
  count?: number;
  eachG?: Said;
  everyS?: Said;
  untilG?: Said;
  after: number;
  /** When the first is, where that is said before it. */
  start: Start;
};

export type Statement<Name extends FactName = FactName> = { value: Facts[Name]; from: number; to: number };
export type Found = { field: string; from: number; to: number };

export type Draft = {
  method: MethodId | undefined;
  isPoured: boolean;
  facts: { [Name in FactName]?: Statement<Name>[] };
  pours: DraftPour[];
  stirs: DraftStir[];
  series: Series[];
  /** What is done after the first, the last or each of a pattern's pours. */
  deeds: { which: 'first' | 'last' | 'each'; then: 'swirl' | 'stir' }[];
  /** What comes before the amount that it is about. */
  next: Start & { cue?: StartCue; path?: WaterPath; waterC?: Said | 'room'; isNamed?: true };
  /** Where the time stands that waits for what it is about; and times that nothing came for. */
  waiting: { fromToken: number; toToken: number } | null;
  lost: { fromToken: number; toToken: number }[];
  /** Something is said in ounces: what stands bare is, too. */
  inOunces: boolean;
  /** The token behind the last pour: what follows in the same clause is about it. */
  lastPourEnds: number;
  found: Found[];
};

export const newDraft = (method: MethodId | undefined, isPoured: boolean): Draft => ({
  method,
  isPoured,
  facts: {},
  pours: [],
  stirs: [],
  series: [],
  deeds: [],
  next: {},
  waiting: null,
  lost: [],
  inOunces: false,
  lastPourEnds: -1,
  found: [],
});

export const said = ({ lo, hi }: Pick<Figure, 'lo' | 'hi'>): Said => (lo === hi ? lo : [lo, hi]);
export const middle = (value: Said): number =>
  typeof value === 'number' ? value : (value[0] + value[1]) / 2;

/** A time that a figure is, seconds; null where a bare number is no reading of a clock. */
export function timeOf(figure: Figure | undefined): Said | null {
  if (!figure) return null;
  if (figure.kind === 'bare') return figure.clockS ?? null;
  return said(figure);
}

export function placeOf({ line, fromToken, toToken }: Match): { from: number; to: number } {
  return { from: line.tokens[fromToken]!.from, to: line.tokens[toToken - 1]!.to };
}

/** Keeps a statement with the place that says it. */
export function state<Name extends FactName>(
  draft: Draft,
  name: Name,
  value: Facts[Name],
  match: Match,
): void {
  const place = placeOf(match);
  const statements = (draft.facts[name] ??= []) as Statement<Name>[];
  statements.push({ value, ...place });
  draft.found.push({ field: name, ...place });
}

export const has = (draft: Draft, name: FactName): boolean => draft.facts[name] !== undefined;
export const first = <Name extends FactName>(draft: Draft, name: Name): Facts[Name] | undefined =>
  (draft.facts[name] as Statement<Name>[] | undefined)?.[0]?.value;

/** A time waits for what it is about; one that waited in vain until then is lost, and marked. */
export function awaitWhat(draft: Draft, start: Start, { fromToken, toToken }: Match): void {
  const { atS, waitS, ...others } = draft.next;
  const before = atS ?? waitS;
  const now = start.atS ?? start.waitS;
  // “40 s of bloom” and “at 0:45” say the same.
  const isSame = before !== undefined && now !== undefined && Math.abs(middle(before) - middle(now)) <= 10;
  if (draft.waiting && !isSame) draft.lost.push(draft.waiting);
  draft.next = { ...others, ...start };
  draft.waiting = { fromToken, toToken };
}

/** What waited has found what it is about. */
export function isMet(draft: Draft): void {
  draft.waiting = null;
}
