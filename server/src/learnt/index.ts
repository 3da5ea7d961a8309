/**
 * What the log teaches: read from the records, worked out by `core/learn`, for the screens and the planner.
 */
import type {
  Bar,
  BrewPage,
  BrewRecord,
  DayPage,
  HandsLearnt,
  House,
  Learnt,
  Today,
} from '@even-kettle/core/contract';
import { adviseOn, changeInWords, dayOf } from '@even-kettle/core/learn';
import type { PromiseShares } from '@even-kettle/core/plan';
import type { Recipe } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import { boilingPointC } from '@even-kettle/core/water';
import { bedsOf, drawdownOf, recordsOfOneKind, retentionOf } from './beds';
import { learntHands, paceOf } from './hands';
import { promiseSharesOf } from './promise';
import type { SettingsChange } from '../bar/settings';
import { todayOf } from './today';
import { houseOf, stockOf } from './house';
import { grindOf, runOf, triedWith, type Run } from './run';
import { LEARN_FROM, isSold, tenth, houseEventsOf, type Sources } from './sources';

export type Learning = {
  of: (recipeId: string, coffee: string) => Promise<Learnt>;
  brew: (brewId: string) => Promise<BrewPage | null>;
  day: (fromMs: number, toMs: number) => Promise<DayPage>;
  today: (span: { fromMs: number; toMs: number }, changes: readonly SettingsChange[]) => Promise<Today>;
  house: () => Promise<House>;
  /** What is left of each coffee that was weighed, grams. */
  stock: () => Promise<Record<string, number>>;
  /** How long each kind of attended step takes, for the bar and for each of its people. */
  hands: () => Promise<HandsLearnt>;
  /** How long each kind of step takes, as a factor of the card's time: of the person, or of the bar. */
  pace: (by: string | undefined) => Promise<NonNullable<Bar['pace']>>;
  /** How much water a gram of coffee retains and how drawdown grows, by recipe and coffee, if enough brews show it. */
  beds: () => Promise<NonNullable<Bar['beds']>>;
  /** The share of the wait that a promise adds; null while the log has too few orders. */
  promiseShares: () => Promise<PromiseShares>;
};

export const openLearning = (sources: Sources): Learning => ({
  of: (recipeId, coffee) => learntOf(recipeId, coffee, sources),
  brew: (brewId) => brewPageOf(brewId, sources),
  day: (fromMs, toMs) => dayPageOf(fromMs, toMs, sources),
  today: (span, changes) => todayOf(span, changes, sources),
  house: () => houseOf(sources),
  stock: () => stockOf(sources),
  hands: () => learntHands(sources),
  pace: (by) => paceOf(by, sources),
  beds: () => bedsOf(sources),
  promiseShares: () => promiseSharesOf(sources),
});

async function learntOf(recipeId: string, coffee: string, sources: Sources): Promise<Learnt> {
  const run = await runOf(recipeId, coffee, sources);
  const grind = grindOf(run, sources);
  const served = (await sources.records.latest(LEARN_FROM, recipeId)).filter(
    (record) => record.coffee === coffee && record.outcome === 'served',
  );
  return {
    recipeId,
    coffee,
    versions: [...new Set(run.points.flatMap(({ recipeVersion }) => recipeVersion ?? []))].sort(
      (a, b) => a - b,
    ),
    run: run.points.map(({ brewId, endedMs, brewS, setting }) => ({ brewId, endedMs, brewS, setting })),
    chart: run.chart,
    grind: grind && {
      grinderId: grind.grinder.id,
      grinderName: grind.grinder.name,
      setting: grind.setting,
      secondsPerStep: tenth(grind.slope.secondsPerStep),
      plusMinusS: tenth(grind.slope.plusMinusS),
      brews: grind.slope.brews,
    },
    retention: retentionOf(served),
    drawdown: drawdownOf(recordsOfOneKind(served, sources)),
    tried: houseEventsOf(sources.state(), 'change-tried')
      .filter((tried) => tried.recipeId === recipeId && tried.coffee === coffee)
      .reverse()
      .map((tried) => triedWith(tried, run)),
  };
}

async function brewPageOf(brewId: string, sources: Sources): Promise<BrewPage | null> {
  const record = await sources.records.one(brewId);
  if (!record) return null;
  const trace = await sources.traces.read(brewId);
  if (record.outcome === 'abandoned') return { record, trace, advice: null };
  const run = await runOf(record.recipeId, record.coffee, sources);
  const taken = houseEventsOf(sources.state(), 'change-tried').findLast(
    ({ fromBrewId }) => fromBrewId === brewId,
  );
  // One change at a time: no further advice from this brew until a brew has been made with the change.
  const advice: NonNullable<BrewPage['advice']> = taken
    ? { kind: 'leave', because: [`Taken up: ${taken.words}. Brew with it before you change anything else.`] }
    : adviceOn(record, run, sources);
  return { record, trace, advice };
}

async function dayPageOf(fromMs: number, toMs: number, sources: Sources): Promise<DayPage> {
  const of = (await sources.records.between(fromMs, toMs)).filter(isSold);
  const day = dayOf(of.map((record) => ({ ...record, pouredG: pouredOf(record) })));
  const byOrder = new Map(
    of.flatMap((record) => [record, ...(record.sharers ?? [])]).map((order) => [order.orderId, order]),
  );
  const today = houseEventsOf(sources.state(), 'change-tried').filter(
    ({ atMs }) => atMs >= fromMs && atMs < toMs,
  );
  const learnt: string[] = [];
  for (const tried of today) {
    const { words, result } = triedWith(tried, await runOf(tried.recipeId, tried.coffee, sources));
    const came = result ? `It took ${showClock(result.brewS)}.` : 'Not brewed since.';
    learnt.push(`${tried.coffee}: ${words}. ${came}`);
  }
  return {
    ...day,
    late: day.late.map((late) => {
      const { guest, badge } = byOrder.get(late.orderId)!;
      return { ...late, guest, badge };
    }),
    learnt,
  };
}

function adviceOn(record: BrewRecord, run: Run, sources: Sources): NonNullable<BrewPage['advice']> {
  const grind = grindOf(run, sources);
  const advice = adviseOn(
    {
      method: record.method,
      roast: record.roast,
      taste: record.taste ?? {},
      notes: record.notes,
      brewS: record.realBrewS,
      windowS: { from: record.windowFromS, to: record.windowToS },
      expectedS: record.plannedBrewS,
      waterC: record.waterC,
      highestC: Math.floor(boilingPointC(sources.bar().altitudeM) * 10) / 10,
      reads: record.steps.flatMap(({ readC, askedC }) =>
        readC === undefined || !askedC ? [] : [{ readC, ...askedC }],
      ),
      oneGrind: sources.bar().oneGrind ?? false,
      stirredOnePour: isStirredOnePour(sources.recipe(record.recipeId)),
    },
    { chart: run.chart, grind },
  );
  return advice.kind === 'change'
    ? { ...advice, words: changeInWords(advice.change, grind?.slope.brews ?? null) }
    : advice;
}

/** The water that was poured when a brew ended or stopped: the scale's reading, or else the target of the last pour. */
const pouredOf = ({ pouredG, steps }: BrewRecord): number =>
  pouredG ??
  steps.reduce(
    (most, { readingG, targetG, realEndS }) =>
      realEndS === null ? most : Math.max(most, readingG ?? targetG ?? 0),
    0,
  );

/** One pour with a stir after it. */
function isStirredOnePour(recipe: Recipe | undefined): boolean {
  const steps = recipe?.steps ?? [];
  const pours = steps.filter(({ pour }) => pour !== undefined);
  return pours.length === 1 && steps.slice(steps.indexOf(pours[0]!)).some(({ kind }) => kind === 'stir');
}
