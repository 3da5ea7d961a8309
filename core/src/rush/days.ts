/**
 * Days at a bar, cup after cup, as their log would hold them: for a record that has something true to teach. What is true
 * is given: how the bed runs, what a step of the grinder is worth, from when on it runs longer.
 */
import type { BarEvent, CupAsk, Notch, Taste } from '../brew';
import { normal } from '../pour';
import { planGreedily, type Bench, type NewId } from '../plan';
import type { RecipeBook } from '../recipe';
import { liveShift } from './shift';

/** What is true of a recipe with a coffee, and what its record should show. */
export type TrueBrewing = {
  recipeId: string;
  coffee: string;
  /** Seconds of drawdown beyond the card's, one brew's spread, and what a step coarser takes off. */
  longerS: number;
  spreadS: number;
  secondsPerStep: number;
  /** From this day on (0 is the first) it runs so much longer. */
  drift?: { fromDay: number; longerS: number };
};

export type DaysPlan = {
  bench: Bench;
  book: RecipeBook;
  /** When each day's service begins, oldest first, bar milliseconds. */
  daysMs: readonly number[];
  cupsADay: number;
  /** What is asked for, drawn evenly; cup ids are given here. */
  menu: readonly Omit<CupAsk, 'cupId'>[];
  people: readonly string[];
  truths: readonly TrueBrewing[];
  /** Steps coarser than the bench's own setting that a coffee was ground at on a day. */
  coarserOn: (coffee: string, day: number) => number;
  random: () => number;
  newId: NewId;
  /** Before every order's, cup's and brew's id. */
  prefix: string;
};

/** From one order to the next: long enough for any brew, so that no station is asked for twice at once. */
const APART_MS = 14 * 60_000;
const TASTED_AFTER_MS = 8 * 60_000;
/** How many cups are tasted, and of these weighed and measured. */
const TASTED = 0.4;
const WEIGHED = 0.5;
const MEASURED = 0.3;

/** The events of all days in order of time. */
export function liveDays(plan: DaysPlan): BarEvent[] {
  const { bench, book, random, newId, people } = plan;
  const events: BarEvent[] = [];
  plan.daysMs.forEach((dayMs, day) => {
    for (let n = 0; n < plan.cupsADay; n += 1) {
      const ask = plan.menu[Math.floor(random() * plan.menu.length)]!;
      const atMs = Math.round(dayMs + n * APART_MS + random() * 60_000);
      const id = `${plan.prefix}-${day + 1}-${n + 1}`;
      const coarser = plan.coarserOn(ask.coffee, day);
      const truth = plan.truths.find(
        ({ recipeId, coffee }) => recipeId === ask.recipeId && coffee === ask.coffee,
      );
      const offS = drawdownOffS(truth, day, coarser, random);
      const by = people.length === 0 ? undefined : people[(day + Math.floor(n / 6)) % people.length]!;
      const { events: lived, state } = liveShift({
        bench: groundCoarser(bench, ask.coffee, coarser),
        book,
        orders: [
          { id: newId(), type: 'order-taken', atMs, orderId: id, cups: [{ ...ask, cupId: `${id}-1` }] },
        ],
        fromMs: atMs,
        untilMs: atMs + 3_600_000,
        newId,
        random,
        planner: planGreedily,
        plannedOnce: true,
        cueOffS: ({ awaited }) => (awaited?.kind === 'drawdown' ? offS : 0),
        ...(by === undefined ? {} : { by }),
      });
      events.push(...lived);
      const [brew] = Object.values(state.brews);
      if (brew?.servedMs === undefined || random() > TASTED) continue;
      events.push({
        id: newId(),
        type: 'cup-tasted',
        atMs: brew.servedMs + TASTED_AFTER_MS,
        brewId: brew.id,
        ...(by === undefined ? {} : { by }),
        taste: tasteOf(offS, brew.card, random),
      });
    }
  });
  return events.sort((a, b) => a.atMs - b.atMs);
}

function drawdownOffS(
  truth: TrueBrewing | undefined,
  day: number,
  coarser: number,
  random: () => number,
): number {
  const spreadS = truth?.spreadS ?? 5;
  const noiseS = spreadS * normal(random);
  if (!truth) return noiseS;
  const { longerS, secondsPerStep, drift } = truth;
  return longerS + secondsPerStep * coarser + (drift && day >= drift.fromDay ? drift.longerS : 0) + noiseS;
}

/** The bench with this coffee's offset at the first grinder moved. Larger settings are taken to be coarser there. */
function groundCoarser(bench: Bench, coffee: string, steps: number): Bench {
  const [grinder] = bench.grinders;
  if (!grinder || steps === 0 || !bench.coffees) return bench;
  const coffees = bench.coffees.map((each) =>
    each.name === coffee
      ? {
          ...each,
          grindOffsets: {
            ...each.grindOffsets,
            [grinder.id]: (each.grindOffsets?.[grinder.id] ?? 0) + steps,
          },
        }
      : each,
  );
  return { ...bench, coffees };
}

/** What long and short drawdowns taste like, mostly. */
function tasteOf(
  offS: number,
  card: { doseG: number; brewWaterG: number; beverageG: number },
  random: () => number,
): Taste {
  const leaning = offS / 12 + (random() - 0.5);
  const balance = Math.max(-2, Math.min(2, Math.round(leaning))) as Notch;
  return {
    balance,
    strength: (random() < 0.8 ? 0 : random() < 0.5 ? -1 : 1) as Notch,
    ...(random() < WEIGHED ? { beverageG: Math.round(card.beverageG + 4 * (random() - 0.5)) } : {}),
    ...(random() < MEASURED
      ? { tdsPct: Math.round((1.32 + 0.05 * leaning + 0.1 * (random() - 0.5)) * 100) / 100 }
      : {}),
  };
}
