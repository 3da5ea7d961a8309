/**
 * What the log teaches: read from the records, worked out by `core/learn`, for the screens and the planner.
 */
import type { BarState, ChangeTried, ThingEvent } from '@even-kettle/core/brew';
import type {
  Bar,
  BrewPage,
  BrewRecord,
  DayPage,
  HandsLearnt,
  House,
  Learnt,
} from '@even-kettle/core/contract';
import {
  HANDS_OWN,
  adviseOn,
  changeInWords,
  clothState,
  coarserWay,
  dayOf,
  grindSlope,
  learnDrawdown,
  learnDurations,
  learnRetention,
  runChart,
  type DoneStep,
  type GrindSlope,
  type WeighedCup,
} from '@even-kettle/core/learn';
import { bedKey } from '@even-kettle/core/plan';
import {
  PAPER_METHODS,
  brewerById,
  grindSetting,
  takesPaper,
  type PaperMethod,
  type Recipe,
} from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import type { RecordShelf, RunPoint } from './store/records';
import type { TraceShelf } from './store/traces';

export type Learning = {
  of: (recipeId: string, coffee: string) => Promise<Learnt>;
  brew: (brewId: string) => Promise<BrewPage | null>;
  day: (fromMs: number, toMs: number) => Promise<DayPage>;
  house: () => Promise<House>;
  /** How long each kind of the hands' own steps takes, of the bar and of each of its people. */
  hands: () => Promise<HandsLearnt>;
  /** How long each kind of step takes, times the card's length: a person's own, or the bar's. */
  pace: (by: string | undefined) => Promise<NonNullable<Bar['pace']>>;
  /** What a gram of coffee keeps and how drawdown grows, by recipe and coffee, where enough is known. */
  beds: () => Promise<NonNullable<Bar['beds']>>;
};

type Sources = {
  records: RecordShelf;
  traces: TraceShelf;
  state: () => BarState;
  bar: () => Bar;
  /** The latest version of a recipe. */
  recipe: (id: string) => Recipe | undefined;
  nowMs: () => number;
};

/** Brews of a recipe that its run shows, and whole records that the rest is learnt from. */
const RUN_BREWS = 200;
const LEARN_FROM = 300;

export function openLearning({ records, traces, state, bar, recipe, nowMs }: Sources): Learning {
  const things = <Type extends ThingEvent['type']>(type: Type) =>
    (state().things ?? []).filter(
      (event): event is Extract<ThingEvent, { type: Type }> => event.type === type,
    );

  /** What is left of a method's papers, and how quickly they go. */
  const paperStock = async (method: PaperMethod): Promise<House['papers'][number]> => {
    const used = async (sinceMs: number) =>
      (await records.byRecipe(method, sinceMs))
        .filter(({ recipeId }) => takesPaper(recipe(recipeId) ?? { method, filter: 'paper' }))
        .reduce((sum, { brews }) => sum + brews, 0);
    const counted = things('papers-counted').findLast((event) => event.method === method);
    return {
      method,
      sheets: counted ? Math.max(0, counted.sheets - (await used(counted.atMs))) : null,
      perDay: tenth((await used(nowMs() - WEEK_MS)) / 7),
    };
  };

  /** The run with every time as it would be for the latest cup's size, so that a large cup is no drift. */
  const runOf = async (recipeId: string, coffee: string) => {
    const run = await records.run(recipeId, coffee, RUN_BREWS);
    const sizeS = run.at(-1)?.plannedS ?? 0;
    return run.map((point) => ({ ...point, brewS: tenth(point.brewS + sizeS - point.plannedS) }));
  };

  /** What a step is worth. Brews since a shift are taken as if it had not been, and what is expected lies where they do. */
  const grindOf = (recipeId: string, coffee: string, run: RunPoint[], chart: Learnt['chart']) => {
    const [grinder] = bar().grinders;
    const band = recipe(recipeId)?.grindBand;
    const offset = bar().coffees.find(({ name }) => name === coffee)?.grindOffsets?.[grinder?.id ?? ''] ?? 0;
    const zero = grinder && band !== undefined ? grindSetting(grinder, band) : null;
    if (!grinder || !zero?.ok) return null;
    const byS = chart?.shift?.byS ?? 0;
    const points = run.flatMap(({ brewS, setting }, index) =>
      setting === null
        ? []
        : [{ brewS: brewS - (index >= (chart?.shift?.fromIndex ?? Infinity) ? byS : 0), setting }],
    );
    const slope = grindSlope(
      points,
      { setting: zero.setting, brewS: run.at(-1)?.plannedS ?? 180 },
      coarserWay(grinder),
    );
    const at: GrindSlope['at'] = (setting) => {
      const expected = slope.at(setting);
      return { ...expected, brewS: expected.brewS + byS };
    };
    return { grinder, slope: { ...slope, at }, setting: tenth(zero.setting + offset) };
  };

  return {
    of: async (recipeId, coffee) => {
      const run = await runOf(recipeId, coffee);
      const chart = chartOf(run);
      const grind = grindOf(recipeId, coffee, run, chart);
      const whole = (await records.latest(LEARN_FROM, recipeId)).filter(
        (record) => record.coffee === coffee && record.outcome === 'served',
      );
      const retention = learnRetention(weighedOf(whole));
      return {
        recipeId,
        coffee,
        run: run.map(({ brewId, endedMs, brewS, setting }) => ({ brewId, endedMs, brewS, setting })),
        chart,
        grind: grind && {
          grinderId: grind.grinder.id,
          grinderName: grind.grinder.name,
          setting: grind.setting,
          secondsPerStep: tenth(grind.slope.secondsPerStep),
          plusMinusS: tenth(grind.slope.plusMinusS),
          brews: grind.slope.brews,
        },
        retention,
        drawdown: learnDrawdown(drawdownsOf(whole)),
        tried: things('change-tried')
          .filter((tried) => tried.recipeId === recipeId && tried.coffee === coffee)
          .reverse()
          .map((tried) => triedWith(tried, run)),
      };
    },
    brew: async (brewId) => {
      const record = await records.one(brewId);
      if (!record) return null;
      const trace = await traces.read(brewId);
      if (record.outcome === 'abandoned') return { record, trace, advice: null };
      const run = await runOf(record.recipeId, record.coffee);
      const chart = chartOf(run);
      const grind = grindOf(record.recipeId, record.coffee, run, chart);
      return { record, trace, advice: adviceOn(record, chart, grind) };
    },
    day: async (fromMs, toMs) => {
      const of = await records.between(fromMs, toMs);
      const day = dayOf(of);
      const byOrder = new Map(
        of.flatMap((record) => [record, ...(record.sharers ?? [])]).map((order) => [order.orderId, order]),
      );
      const today = things('change-tried').filter(({ atMs }) => atMs >= fromMs && atMs < toMs);
      const learnt: string[] = [];
      for (const tried of today) {
        const { words, result } = triedWith(tried, await runOf(tried.recipeId, tried.coffee));
        learnt.push(
          `${tried.coffee}: ${words}.${result ? ` It took ${showClock(result.brewS)}.` : ' Not brewed since.'}`,
        );
      }
      return {
        ...day,
        late: day.late.map((late) => {
          const { guest, badge } = byOrder.get(late.orderId)!;
          return { ...late, guest, badge };
        }),
        learnt,
      };
    },
    house: async () => {
      const weighed = things('coffee-weighed');
      const now = new Date(nowMs());
      const dayStartMs = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime();
      return {
        coffees: await Promise.all(
          bar().coffees.map(async ({ name }) => {
            const last = weighed.findLast(({ coffee }) => coffee === name);
            const { brews, doseG, tasted } = await records.ofCoffee(name, last?.atMs ?? 0);
            return {
              name,
              stockG: last ? Math.max(0, Math.round(last.stockG - doseG)) : null,
              brews,
              tasted,
            };
          }),
        ),
        papers: await Promise.all(papersOf(bar()).map(paperStock)),
        cloths: await Promise.all(
          bar().cloths.map(async ({ id, name, stationId }) => {
            const sinceMs = things('cloth-replaced').findLast(({ clothId }) => clothId === id)?.atMs ?? 0;
            const brews = await records.atStation(stationId, sinceMs);
            const boiledMs = things('cloth-boiled')
              .filter(({ clothId, atMs }) => clothId === id && atMs >= sinceMs)
              .map(({ atMs }) => atMs);
            return {
              id,
              name,
              stationName: bar().stations.find((station) => station.id === stationId)?.name ?? stationId,
              ...clothState({ sinceMs: sinceMs || (brews[0]?.atMs ?? 0), boiledMs, brews }, dayStartMs),
            };
          }),
        ),
      };
    },
    beds: async () => {
      const served = (await records.latest(LEARN_FROM)).filter(({ outcome }) => outcome === 'served');
      const byBed = new Map<string, BrewRecord[]>();
      for (const record of served) {
        const key = bedKey(record.recipeId, record.coffee);
        byBed.set(key, [...(byBed.get(key) ?? []), record]);
      }
      return Object.fromEntries(
        [...byBed].flatMap(([key, of]) => {
          const retention = learnRetention(weighedOf(of));
          const drawdown = learnDrawdown(drawdownsOf(of));
          if (!retention && !drawdown) return [];
          // To a twentieth: a card is not to flicker with every cup that is weighed.
          const bed = {
            ...(retention ? { retentionGPerG: twentieth(retention.gPerG) } : {}),
            ...(drawdown ? { drawdownExponent: twentieth(within(drawdown.exponent, 0, 1.5)) } : {}),
          };
          return [[key, bed] as const];
        }),
      );
    },
    hands: async () => {
      const durations = learnDurations((await records.latest(LEARN_FROM)).flatMap(stepsOf));
      const stepsBy = (id: string | null) =>
        [...HANDS_OWN].flatMap((kind) => {
          const learnt = durations(kind, id ?? undefined);
          if (!learnt || (id !== null && learnt.whose === 'bar')) return [];
          const { cardS, medianS, fromS, toS, steps } = learnt;
          return [
            {
              kind,
              cardS: tenth(cardS),
              medianS: tenth(medianS),
              fromS: tenth(fromS),
              toS: tenth(toS),
              steps,
            },
          ];
        });
      return {
        people: [null, ...bar().people.map(({ id }) => id)]
          .map((id) => ({ id, steps: stepsBy(id) }))
          .filter(({ id, steps }) => id === null || steps.length > 0),
      };
    },
    pace: async (by) => {
      const durations = learnDurations((await records.latest(LEARN_FROM)).flatMap(stepsOf));
      const known = [...HANDS_OWN].flatMap((kind) => {
        const learnt = durations(kind, by);
        return learnt ? [[kind, Math.round(learnt.factor * 100) / 100] as const] : [];
      });
      return Object.fromEntries(known);
    },
  };
}

/**
 * Limits hold for brews that were ground alike: of the latest setting, back to where it was another. Places are those in
 * the whole run.
 */
function chartOf(run: RunPoint[]): Learnt['chart'] {
  const setting = run.at(-1)?.setting ?? null;
  const from = 1 + run.findLastIndex((point) => point.setting !== null && point.setting !== setting);
  const chart = runChart(run.slice(from).map(({ brewS }) => brewS));
  if (!chart) return null;
  const { shift } = chart;
  return {
    fromIndex: from + chart.fromIndex,
    centreS: tenth(chart.centre),
    lowS: tenth(chart.low),
    highS: tenth(chart.high),
    outside: [...Array<boolean>(from).fill(false), ...chart.outside],
    shift: shift && {
      fromIndex: from + shift.fromIndex,
      seenIndex: from + shift.seenIndex,
      byS: tenth(shift.by),
    },
  };
}

function adviceOn(
  record: BrewRecord,
  chart: Learnt['chart'],
  grind: { slope: GrindSlope; setting: number } | null,
): NonNullable<BrewPage['advice']> {
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
    },
    { chart, grind },
  );
  return advice.kind === 'change'
    ? { ...advice, words: changeInWords(advice.change, grind?.slope.brews ?? null) }
    : advice;
}

function triedWith(tried: ChangeTried, run: RunPoint[]): Learnt['tried'][number] {
  const since = run.find(({ endedMs }) => endedMs > tried.atMs);
  return {
    atMs: tried.atMs,
    words: tried.words,
    expectS: tried.expectS ?? null,
    plusMinusS: tried.plusMinusS ?? null,
    result: since ? { brewId: since.brewId, brewS: since.brewS } : null,
  };
}

const stepsOf = (record: BrewRecord): DoneStep[] =>
  record.steps.flatMap(({ kind, by, plannedS, workedS }) =>
    workedS === null ? [] : [{ kind, by, plannedS, realS: workedS }],
  );

const weighedOf = (records: readonly BrewRecord[]): WeighedCup[] =>
  records.flatMap((record) =>
    record.beverageG === null ? [] : [{ ...record, beverageG: record.beverageG }],
  );
const drawdownsOf = (records: readonly BrewRecord[]) =>
  records.flatMap(({ brewId, brewWaterG, drawdownS }) =>
    drawdownS === null ? [] : [{ brewId, brewWaterG, drawdownS }],
  );

/** Methods of this bench that use paper. */
const papersOf = ({ stations }: Bar): PaperMethod[] =>
  PAPER_METHODS.filter((method) => stations.some(({ brewerId }) => brewerById(brewerId)?.method === method));
const WEEK_MS = 7 * 86_400_000;

const within = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
const twentieth = (value: number): number => Math.round(value * 20) / 20;
const tenth = (value: number): number => Math.round(value * 10) / 10;
