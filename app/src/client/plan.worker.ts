/**
 * The browser's planner, in a worker, so that the page never waits for it: plans while the server is away, and what
 * would be if. A question that is asked anew takes the place of the one before.
 */
import {
  CAREFUL_MOVES,
  QUOTE_MOVES,
  buildProblem,
  chainOf,
  effectOf,
  quoteOrder,
  urgeOrder,
  solve,
  standingPlan,
  startQuoting,
  startStanding,
  urgePast,
  whatHelps,
  type Bench,
  type Effect,
  type Help,
  type Link,
  type Plan,
  type Quote,
  type Standing,
  type Urging,
} from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, type Recipe } from '@even-kettle/core/recipe';
import type { BarEvent, BarState, CupAsk, InQueue } from '@even-kettle/core/brew';

/** The bar as the page knows it. */
export type BarGiven = { state: BarState; bench: Bench; saved: Recipe[]; nowMs: number; plan: Plan | null };

/** An order that could be taken, by a name; what may be promised is worked out carefully once all are answered roughly. */
export type QuoteDraft = { name: string; cups: CupAsk[]; queue?: InQueue; carefully?: true };

export type Question =
  | { ask: 'plan' }
  /** Several orders that could be taken. */
  | { ask: 'quotes'; drafts: QuoteDraft[] }
  | { ask: 'urge'; orderId: string; otherId: string; way: 'before' | 'after' }
  | { ask: 'rush'; orderId: string }
  /** What these events would do to the times, all of them said at once. */
  | { ask: 'effect'; events: BarEvent[] }
  | { ask: 'why'; orderId: string; brewIds: string[] };

export type Answer =
  | { ask: 'plan'; plan: Plan | null }
  | { ask: 'quotes'; name: string; quote: Quote; careful: boolean }
  | { ask: 'urge' | 'rush'; urging: Urging | null }
  | { ask: 'effect'; effect: Effect }
  | { ask: 'why'; chain: Link[]; helps: Help[] };

export type PlanJob = { job: number; bar: BarGiven; question: Question };
export type PlanAnswer = { job: number; answer: Answer; last: boolean };

/** A quote is told again after so many moves; it may be promised from there on; and it is worked at in turns of so many. */
const PROMISED_MOVES = 3 * CAREFUL_MOVES;
const ROUNDS = [80, CAREFUL_MOVES, PROMISED_MOVES, 10 * CAREFUL_MOVES];
const TURN_MOVES = 40;

/** The latest job of each kind. */
const latest = new Map<Question['ask'], number>();

self.onmessage = ({ data }: MessageEvent<PlanJob>) => {
  latest.set(data.question.ask, data.job);
  void work(data);
};

/** Lets messages in that came meanwhile; false where this job has been asked anew. */
const stillAsked = async ({ job, question }: PlanJob): Promise<boolean> => {
  await new Promise((resolve) => setTimeout(resolve, 0));
  return latest.get(question.ask) === job;
};

async function work(asked: PlanJob): Promise<void> {
  const { job, bar, question } = asked;
  const say = (answer: Answer, last = true) => self.postMessage({ job, answer, last } satisfies PlanAnswer);
  const { state, bench, saved, nowMs, plan } = bar;
  const book = bookOf([...SCHOOLS, ...saved]);
  const standing: Standing = { state, bench, book, nowS: Math.ceil(nowMs / 1000), plan };
  if (question.ask === 'plan') {
    const { problem } = buildProblem(state, bench, book, standing.nowS, plan ?? undefined);
    return say({
      ask: 'plan',
      plan: problem.brews.length > 0 ? solve(problem, { before: plan ?? undefined }) : null,
    });
  }
  if (question.ask === 'effect') {
    const base = standingPlan(standing, QUOTE_MOVES);
    return say({ ask: 'effect', effect: effectOf(standing, base, question.events) });
  }
  if (question.ask === 'quotes') return quotes(asked, question.drafts, standing, say);
  const base = standingPlan(standing, CAREFUL_MOVES);
  if (question.ask === 'why') {
    const chain = base
      ? question.brewIds.map((id) => chainOf(base, id)).sort((a, b) => b.length - a.length)[0]
      : undefined;
    return say({
      ask: 'why',
      chain: chain ?? [],
      helps: base ? whatHelps(standing, base, question.orderId) : [],
    });
  }
  const { ask, orderId } = question;
  const planned = base !== null && orderId in base.finish;
  if (ask === 'rush') return say({ ask, urging: planned ? urgeOrder(standing, base, orderId) : null });
  const both = planned && question.otherId in base.finish;
  say({ ask, urging: both ? urgePast(standing, base, orderId, question.otherId, question.way) : null });
}

/** What was found for the drafts of the latest question, by their cups, and without them: to set out from when it is asked again. */
let found = new Map<string, { plan: Plan; moves: number }>();
let foundWithout: Plan | null = null;
const cupsOf = ({ cups, queue }: QuoteDraft) => JSON.stringify([cups, queue]);

/** Every draft roughly, within a blink; then those that may be promised, better and better. */
async function quotes(
  asked: PlanJob,
  drafts: readonly QuoteDraft[],
  standing: Standing,
  say: (answer: Answer, last: boolean) => void,
): Promise<void> {
  const careful = drafts.filter(({ carefully }) => carefully);
  const rough = standingPlan(standing, QUOTE_MOVES);
  for (const { name, cups, queue } of drafts) {
    if (!(await stillAsked(asked))) return;
    const quote = quoteOrder(standing, rough, cups, QUOTE_MOVES, queue);
    const isLast = careful.length === 0;
    say({ ask: 'quotes', name, quote, careful: isLast }, isLast && name === drafts.at(-1)!.name);
  }
  // Asked again, as it is every few seconds, it has been worked out already: it is only brought up to date.
  const isKnown = careful.every((draft) => (found.get(cupsOf(draft))?.moves ?? 0) >= PROMISED_MOVES);
  const rounds = isKnown ? [CAREFUL_MOVES] : ROUNDS;
  const base = startStanding(standing, (isKnown ? foundWithout : null) ?? rough);
  const quoting = careful.map((draft) => ({
    draft,
    ...startQuoting(standing, found.get(cupsOf(draft))?.plan ?? rough, draft.cups, draft.queue),
  }));
  found = new Map([...found].filter(([cups]) => careful.some((draft) => cupsOf(draft) === cups)));
  let moves = 0;
  for (const upTo of rounds) {
    // In short turns, so that a change is heard in between.
    for (; moves < upTo; moves += TURN_MOVES) {
      for (const { improve } of [base, ...quoting]) {
        if (!(await stillAsked(asked))) return;
        improve(TURN_MOVES);
      }
    }
    const without = base.answer();
    foundWithout = without;
    const isCareful = isKnown || upTo >= PROMISED_MOVES;
    for (const { draft, answer } of quoting) {
      const { plan, quote } = answer();
      if (plan) found.set(cupsOf(draft), { plan, moves: isKnown ? PROMISED_MOVES : upTo });
      say(
        { ask: 'quotes', name: draft.name, quote: quote(without), careful: isCareful },
        upTo === rounds.at(-1) && draft === careful.at(-1),
      );
    }
  }
}
