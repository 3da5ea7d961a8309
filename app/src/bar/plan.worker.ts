/**
 * The browser's planner, in a worker, so that the page never waits for it: plans while the server is away, and what
 * would be if. A question that is asked anew takes the place of the one before.
 */
import {
  buildProblem,
  chainOf,
  quoteOrder,
  rush,
  solve,
  standingPlan,
  urgePast,
  whatHelps,
  type Bench,
  type Help,
  type Link,
  type Plan,
  type Quote,
  type Standing,
  type Urging,
} from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, type Recipe } from '@even-kettle/core/recipe';
import type { BarState, CupAsk } from '@even-kettle/core/brew';

/** The bar as the page knows it. */
export type BarGiven = { state: BarState; bench: Bench; saved: Recipe[]; nowMs: number; plan: Plan | null };

/** An order that could be taken, by a name; what may be promised is worked out carefully once all are answered roughly. */
export type QuoteDraft = { name: string; cups: CupAsk[]; carefully?: true };

export type Question =
  | { ask: 'plan' }
  /** Several orders that could be taken. */
  | { ask: 'quotes'; drafts: QuoteDraft[] }
  | { ask: 'urge'; orderId: string; otherId: string; way: 'before' | 'after' }
  | { ask: 'rush'; orderId: string }
  | { ask: 'why'; orderId: string; brewIds: string[] };

export type Answer =
  | { ask: 'plan'; plan: Plan | null }
  | { ask: 'quotes'; name: string; quote: Quote; careful: boolean }
  | { ask: 'urge' | 'rush'; urging: Urging | null }
  | { ask: 'why'; chain: Link[]; helps: Help[] };

export type PlanJob = { job: number; bar: BarGiven; question: Question };
export type PlanAnswer = { job: number; answer: Answer; last: boolean };

/** What is compared with must be as good as what is tried; quotes have to be there within a blink. */
const QUOTE_MOVES = 24;
const MANY_MOVES = 240;
/** A quote that may be promised is made better so often, so that a change is heard in between. */
const CAREFUL_MOVES = [80, MANY_MOVES, 3 * MANY_MOVES];

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
  if (question.ask === 'quotes') return quotes(asked, question.drafts, standing, say);
  const base = standingPlan(standing, MANY_MOVES);
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
  if (ask === 'rush') return say({ ask, urging: planned ? rush(standing, base, orderId) : null });
  const both = planned && question.otherId in base.finish;
  say({ ask, urging: both ? urgePast(standing, base, orderId, question.otherId, question.way) : null });
}

/** Every draft roughly, within a blink; then those that may be promised, better and better. */
async function quotes(
  asked: PlanJob,
  drafts: readonly QuoteDraft[],
  standing: Standing,
  say: (answer: Answer, last: boolean) => void,
): Promise<void> {
  const careful = drafts.filter(({ carefully }) => carefully);
  const rounds = [
    { moves: QUOTE_MOVES, of: drafts, isCareful: careful.length === 0 },
    ...(careful.length === 0 ? [] : CAREFUL_MOVES).map((moves) => ({
      moves,
      of: careful,
      isCareful: moves === CAREFUL_MOVES.at(-1),
    })),
  ];
  for (const { moves, of, isCareful } of rounds) {
    const base = standingPlan(standing, moves);
    for (const { name, cups } of of) {
      if (!(await stillAsked(asked))) return;
      say(
        { ask: 'quotes', name, quote: quoteOrder(standing, base, cups, moves), careful: isCareful },
        isCareful && name === of.at(-1)!.name,
      );
    }
  }
}
