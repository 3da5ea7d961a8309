/**
 * Sample rounds: several coffees by one recipe, or one coffee with something changed or by several recipes, tasted behind letters. What the letters hide is nobody's to see until
 * they are opened.
 */
import type { RoundScored } from './events';
import { isPlainToSee, type Sample, type Trial } from './order-events';
import type { BarState, CupState, OrderState } from './state';
import type { Notch } from './taste';

export type Round = {
  roundId: string;
  begunMs: number;
  recipeId: string;
  orderId: string | null;
  revealed: boolean;
  /** By letter; best first once they are open. */
  letters: RoundLetter[];
};

export type RoundLetter = Trial & {
  letter: string;
  coffee: string;
  scores: { taster: string; score: number; body: Notch | null; words: string | null }[];
  /** The mean of the tasters' scores; null before the first. */
  mean: number | null;
  /** The mean of the bodies that were found; null where nobody said one. */
  meanBody: number | null;
};

/** The bar's rounds, the latest first. */
export function roundsOf(state: Pick<BarState, 'houseEvents'>): Round[] {
  const rounds: Round[] = [];
  for (const event of state.houseEvents ?? []) {
    if (event.type === 'round-begun') {
      rounds.unshift({
        roundId: event.roundId,
        begunMs: event.atMs,
        recipeId: event.recipeId,
        orderId: event.sampleOrderId ?? null,
        revealed: false,
        letters: event.cups.map((cup) => ({ ...cup, scores: [], mean: null, meanBody: null })),
      });
      continue;
    }
    if (event.type !== 'round-scored' && event.type !== 'round-revealed') continue;
    const round = rounds.find(({ roundId }) => roundId === event.roundId);
    if (!round) continue;
    if (event.type === 'round-revealed') round.revealed = true;
    else score(round, event);
  }
  for (const round of rounds) if (round.revealed) round.letters.sort((a, b) => (b.mean ?? 0) - (a.mean ?? 0));
  return rounds;
}

const meanOf = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;

function score(round: Round, { letter, taster, score, body, words }: RoundScored): void {
  const of = round.letters.find((each) => each.letter === letter);
  if (!of) return;
  // A taster who thinks again is heard once.
  of.scores = [
    ...of.scores.filter((each) => each.taster !== taster),
    { taster, score, body: body ?? null, words: words ?? null },
  ];
  of.mean = meanOf(of.scores.map((each) => each.score));
  of.meanBody = meanOf(of.scores.flatMap((each) => each.body ?? []));
}

/** Whether the cup of a letter stands there to be tasted; true where its order is not known any more. */
export function isOut({ orders }: Pick<BarState, 'orders'>, { orderId }: Round, letter: string): boolean {
  const order = orderId !== null && Object.hasOwn(orders, orderId) ? orders[orderId] : undefined;
  const cup = order?.cups.find(({ sample }) => sample?.letter === letter);
  return cup === undefined || cup.status === 'served';
}

/** A sample that has to be begun before this one: samples are brewed in the order of their letters. */
export function sampleBefore({ cups }: OrderState, { sample }: { sample?: Sample }): CupState | undefined {
  // What differs is plain on the card, so the letters' order would hide nothing; they come out together instead.
  if (!sample || isPlainToSee(sample)) return undefined;
  return cups.find(
    (cup) =>
      cup.status === 'waiting' && cup.sample?.roundId === sample.roundId && cup.sample.letter < sample.letter,
  );
}
