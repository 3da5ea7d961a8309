/**
 * What would be if: an order taken, an order pulled forward, something more on the bench. Each is answered by planning
 * with it, from the plan that stands, and never by a rule of thumb.
 */
import { apply, brewIdOf, type BarEvent, type BarState, type CupAsk, type InQueue } from '../../brew';
import { SCHOOLS, type MethodId, type RecipeBook } from '../../recipe';
import { brewersOn, cardFor, type Bench } from './bench';
import { buildProblem, type BarProblem } from './build';
import {
  ImpossibleProblem,
  NoValidPlan,
  type Plan,
  type PlanBrew,
  type PlanProblem,
  solve,
  startSolving,
  stepKey,
} from '../solver';
import { isFlameKeeper } from './flames';
import { roughFinish } from './rough';

/** The bar as it stands, for asking. */
export type Standing = {
  state: BarState;
  bench: Bench;
  book: RecipeBook;
  /** Whole seconds of bar time. */
  nowS: number;
  plan: Plan | null;
};

/** An order that comes out at another time than it would: seconds later, negative for sooner. */
export type OrderDelay = { orderId: string; byS: number };

export type Quote =
  | {
      ok: true;
      readyS: number;
      /** Between its first cup and its last, seconds. */
      apartS: number;
      /** When each cup is out, in the order in which they were asked for, seconds of bar time. */
      outS: number[];
      shifts: OrderDelay[];
    }
  /** What no brewer here can make, or no plan can place. */
  | { ok: false; reason: string };

/** Moves that a question may take: about a fiftieth of a second for a dozen brews. */
export const QUOTE_MOVES = 24;
/** And one that is to change the bar's turn, or that somebody waits for with a question: about a fifth of a second. */
export const CAREFUL_MOVES = 240;
/** Later than anything that can be quoted, seconds from now. */
const UNDUE_S = 12 * 3600;
/** A shift of less than this is not worth a word, seconds. */
const WORTH_SAYING_S = 10;

/** An answer that gets better the more moves it is given. */
export type Improving<Answer> = { improve: (moves: number) => void; answer: () => Answer };

/**
 * The plan of the bar as it stands, that the others are compared with; null where nothing is to be planned.
 * @param before a plan to set out from: the one that stands, or an earlier answer
 */
export function startStanding(
  standing: Standing,
  before: Plan | null = standing.plan,
): Improving<Plan | null> {
  const asked = problemOf(standing);
  return asked.problem.brews.length > 0
    ? solvingWhole(asked, before)
    : { improve: () => undefined, answer: () => null };
}

export function standingPlan(standing: Standing, moves: number = QUOTE_MOVES): Plan | null {
  const improving = startStanding(standing);
  improving.improve(moves);
  return improving.answer();
}

/** A plan whose finishes name every order, those that are only reckoned too. For comparing, not for publishing. */
function solvingWhole(asked: BarProblem, before: Plan | null): Improving<Plan> {
  const solving = startSolving(asked.problem, { before: before ?? undefined });
  return {
    improve: solving.improve,
    answer: () => {
      const plan = solving.plan();
      return asked.later.length === 0
        ? plan
        : { ...plan, finish: { ...roughFinish(asked, plan), ...plan.finish } };
    },
  };
}

export function solveWhole(asked: BarProblem, before: Plan | null, moves: number): Plan {
  const solving = solvingWhole(asked, before);
  solving.improve(moves);
  return solving.answer();
}

/**
 * When an order of these cups would be out if it were taken now, and what it would do to the others.
 * @param base the plan without it, as `standingPlan` gives it
 */
export function quoteOrder(
  standing: Standing,
  base: Plan | null,
  cups: CupAsk[],
  moves = QUOTE_MOVES,
  queue: InQueue = {},
): Quote {
  const quoting = startQuoting(standing, base, cups, queue);
  quoting.improve(moves);
  return quoting.answer().quote(base);
}

/** The plan with an order in it, where there is one, and the quote by it against a plan without. */
export type Quoted = { plan: Plan | null; quote: (base: Plan | null) => Quote };

/**
 * The quote of `quoteOrder`, worked at for as long as the caller likes.
 * @param before a plan to set out from: the one without the order, or an earlier answer
 */
export function startQuoting(
  standing: Standing,
  before: Plan | null,
  cups: CupAsk[],
  queue: InQueue = {},
): Improving<Quoted> {
  const orderId = 'quoted';
  const taken = happen(standing, {
    id: orderId,
    type: 'order-taken',
    atMs: standing.nowS * 1000,
    orderId,
    ...queue,
    // It is due when it is quoted to be out: until then it takes what room the others leave.
    expectedMs: (standing.nowS + UNDUE_S) * 1000,
    cups: cups.map((cup, index) => ({ ...cup, cupId: `quoted-${index}` })),
  });
  if (!taken.ok) return noQuote(taken.reason);
  const asked = problemOf(taken.standing);
  // What else cannot be brewed just now, at a station out of use perhaps, is no fault of this order.
  const cannot = asked.unplannable.find(({ cupId }) =>
    taken.standing.state.orders[orderId]!.cups.some((cup) => cup.cupId === cupId),
  );
  if (cannot) return noQuote(cannot.reason);
  const solving = orElse(() => solvingWhole(asked, before), null);
  if (!solving) return noQuote(NO_TIME);
  const quoted = (): Quoted => {
    const plan = solving.answer();
    const byId = new Map(asked.problem.brews.map((brew) => [brew.id, brew]));
    const ready = {
      readyS: plan.finish[orderId]!,
      apartS: apartS(asked.problem, plan, orderId),
      outS: cups.map((cup, index) => {
        // A cup that shares another's brew comes out with it.
        const brew = byId.get(brewIdOf(cup.with?.cupId ?? `quoted-${index}`, 1));
        return brew ? servedS(brew, plan) : plan.finish[orderId]!;
      }),
    };
    return { plan, quote: (base) => ({ ok: true, ...ready, shifts: shiftsBetween(base, plan) }) };
  };
  return { improve: solving.improve, answer: () => orElse(quoted, refused(NO_TIME)) };
}

export const NO_TIME = 'No time can be quoted for this just now.';
const refused = (reason: string): Quoted => ({ plan: null, quote: () => ({ ok: false, reason }) });
const noQuote = (reason: string): Improving<Quoted> => ({
  improve: () => undefined,
  answer: () => refused(reason),
});

function orElse<Answer>(work: () => Answer, otherwise: Answer): Answer {
  try {
    return work();
  } catch (error) {
    if (error instanceof NoValidPlan || error instanceof ImpossibleProblem) return otherwise;
    throw error;
  }
}

export type Urging = {
  /** What to say in the log: how many times its seconds count, and by when it is wanted. */
  weight: number;
  wantedS: number;
  /** Whether it then is out before the other (or after it). */
  kept: boolean;
  shifts: OrderDelay[];
};

/** The last outweighs what was told to several others. */
const SOONER = [4, 16, 64] as const;
const LATER = [0.5, 0.25, 0.1] as const;

/**
 * How an order has to be urged to be out before another one, or after it; the least that does it, with its price for
 * the rest. Where nothing does it the most is given, with `kept` false.
 */
export function urgePast(
  standing: Standing,
  base: Plan,
  orderId: string,
  otherId: string,
  way: 'before' | 'after',
): Urging {
  const otherS = base.finish[otherId]!;
  const wantedS =
    way === 'before' ? Math.min(otherS - 1, base.finish[orderId]!) : Math.max(otherS, base.finish[orderId]!);
  let urging: Urging | null = null;
  for (const weight of way === 'before' ? SOONER : LATER) {
    urging = tryUrging(standing, base, orderId, weight, wantedS, (plan) =>
      way === 'before'
        ? plan.finish[orderId]! <= plan.finish[otherId]!
        : plan.finish[orderId]! >= plan.finish[otherId]!,
    );
    if (urging.kept) return urging;
  }
  return urging!;
}

/** The price of a rush: this order before everything that is not under way. */
export const urgeOrder = (standing: Standing, base: Plan, orderId: string): Urging =>
  tryUrging(
    standing,
    base,
    orderId,
    SOONER.at(-1)!,
    standing.nowS,
    (plan) => plan.finish[orderId]! < base.finish[orderId]!,
  );

function tryUrging(
  standing: Standing,
  base: Plan,
  orderId: string,
  weight: number,
  wantedS: number,
  isKept: (plan: Plan) => boolean,
): Urging {
  const urged = happen(standing, {
    id: 'urged',
    type: 'order-urged',
    atMs: standing.nowS * 1000,
    orderId,
    weight,
    wantedMs: wantedS * 1000,
  });
  const nothing = { weight, wantedS, kept: false, shifts: [] };
  if (!urged.ok) return nothing;
  const plan = solveWhole(problemOf(urged.standing), base, CAREFUL_MOVES);
  return { weight, wantedS, kept: isKept(plan), shifts: shiftsBetween(base, plan) };
}

/** Something that would bring an order out sooner, with how much: tried, not guessed. */
export type Help =
  | { what: 'hands'; gainS: number }
  | { what: 'tool'; tool: string; gainS: number }
  | { what: 'method'; cupId: string; method: MethodId; gainS: number };

/** What would help an order that is late: one more of each tool, a second pair of hands, or a quicker method for a cup that waits. */
export function whatHelps(standing: Standing, base: Plan, orderId: string): Help[] {
  const { problem } = problemOf(standing);
  const order = problem.orders.find(({ id }) => id === orderId);
  if (!order) return [];
  const tools = new Set(
    problem.brews
      .flatMap(({ holds }) => holds.map(({ tool }) => tool))
      .filter((tool) => !isFlameKeeper(tool)),
  );
  const gain = (changed: PlanProblem) =>
    base.finish[orderId]! - solve(changed, { moves: QUOTE_MOVES, before: base }).finish[orderId]!;
  const helps: Help[] = [
    ...otherMethods(standing, base, orderId),
    { what: 'hands', gainS: gain({ ...problem, hands: problem.hands + 1 }) },
    ...[...tools].map((tool) => ({
      what: 'tool' as const,
      tool,
      gainS: gain({ ...problem, tools: { ...problem.tools, [tool]: (problem.tools[tool] ?? 0) + 1 } }),
    })),
  ];
  return helps.filter(({ gainS }) => gainS >= WORTH_SAYING_S).sort((a, b) => b.gainS - a.gainS);
}

/** The cups of an order that wait, each by every other method that the bench has. */
function otherMethods(standing: Standing, base: Plan, orderId: string): Help[] {
  const order = standing.state.orders[orderId];
  const here = new Set(brewersOn(standing.bench).map(({ method }) => method));
  return (order?.cups ?? [])
    .filter(({ status }) => status === 'waiting')
    .flatMap((cup) => {
      const own = standing.book(cup)?.method;
      return [...here]
        .filter((method) => method !== own)
        .flatMap((method) => {
          const recipe = SCHOOLS.find((school) => school.method === method)!;
          const instead = { ...cup, recipeId: recipe.id, recipeVersion: recipe.version };
          if (!cardFor(standing.bench, instead, standing.book).ok) return [];
          const cups = order!.cups.map((each) => (each.cupId === cup.cupId ? instead : each));
          const orders = { ...standing.state.orders, [orderId]: { ...order!, cups } };
          const asked = problemOf({ ...standing, state: { ...standing.state, orders } });
          const plan = solveWhole(asked, base, QUOTE_MOVES);
          return [
            {
              what: 'method' as const,
              cupId: cup.cupId,
              method,
              gainS: base.finish[orderId]! - plan.finish[orderId]!,
            },
          ];
        });
    })
    .sort((a, b) => b.gainS - a.gainS)
    .slice(0, 2);
}

/** A link of what makes a brew wait: who frees what it waits for, and until when. */
export type Link = {
  brewId: string;
  for: 'hands' | 'tool' | 'partner';
  tool?: string;
  until: number;
  step: string | null;
};

const LONGEST_CHAIN = 5;

/** Why a brew waits, and why what it waits for waits, back to what is under way. */
export function chainOf(plan: Plan, brewId: string): Link[] {
  const links: Link[] = [];
  let at: string | null = brewId;
  while (at !== null && links.length < LONGEST_CHAIN) {
    const why: Plan['why'][string] | undefined = plan.why[at];
    if (!why || links.some((link) => link.brewId === at)) break;
    links.push({ brewId: at, ...why });
    at = why.step === null ? null : why.step.slice(0, why.step.lastIndexOf('/'));
  }
  return links;
}

export function problemOf({ state, bench, book, nowS, plan }: Standing) {
  return buildProblem(state, bench, book, nowS, plan ?? undefined);
}

function happen(
  standing: Standing,
  event: BarEvent,
): { ok: true; standing: Standing } | { ok: false; reason: string } {
  const applied = apply(standing.state, event, standing.book);
  if (!applied.ok) return { ok: false, reason: applied.refusal.reason };
  return { ok: true, standing: { ...standing, state: applied.state } };
}

/** The orders that come out at another time, those that come out later first. */
export function shiftsBetween(base: Plan | null, plan: Plan): OrderDelay[] {
  return Object.entries(base?.finish ?? {})
    .map(([orderId, at]) => ({ orderId, byS: (plan.finish[orderId] ?? at) - at }))
    .filter(({ byS }) => Math.abs(byS) >= WORTH_SAYING_S)
    .sort((a, b) => b.byS - a.byS);
}

function apartS({ brews }: PlanProblem, plan: Plan, orderId: string): number {
  const outS = brews.filter(({ orders }) => orders.includes(orderId)).map((brew) => servedS(brew, plan));
  return outS.length < 2 ? 0 : Math.max(...outS) - Math.min(...outS);
}

function servedS({ id, steps }: PlanBrew, plan: Plan): number {
  const serve = steps.find((step) => step.serve)!;
  return plan.starts[stepKey(id, serve.id)]! + serve.duration;
}

/** Cups that are out within this of each other are handed over together, seconds. */
const WAVE_S = 120;

/** The cups of an order in the waves in which they come out, each within two minutes; every wave as indexes of its cups. */
export function wavesOf(outS: readonly number[]): number[][] {
  const sorted = outS.map((_, index) => index).sort((a, b) => outS[a]! - outS[b]!);
  const waves: number[][] = [];
  for (const index of sorted) {
    const last = waves.at(-1);
    if (last && outS[index]! - outS[last[0]!]! <= WAVE_S) last.push(index);
    else waves.push([index]);
  }
  return waves;
}
