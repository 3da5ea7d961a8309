/**
 * Sample rounds: several coffees by one recipe, tasted behind letters. What the letters hide is nobody's to see until
 * they are opened.
 */
import type { BarState } from './state';

export type Round = {
  roundId: string;
  begunMs: number;
  recipeId: string;
  revealed: boolean;
  /** By letter; best first once they are open. */
  letters: RoundLetter[];
};

export type RoundLetter = {
  letter: string;
  coffee: string;
  scores: { taster: string; score: number; words: string | null }[];
  /** The mean of the tasters' scores; null before the first. */
  mean: number | null;
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
        revealed: false,
        letters: event.cups.map((cup) => ({ ...cup, scores: [], mean: null })),
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

function score(
  round: Round,
  { letter, taster, score, words }: { letter: string; taster: string; score: number; words?: string },
): void {
  const of = round.letters.find((each) => each.letter === letter);
  if (!of) return;
  // A taster who thinks again is heard once.
  of.scores = [
    ...of.scores.filter((each) => each.taster !== taster),
    { taster, score, words: words ?? null },
  ];
  of.mean = of.scores.reduce((sum, each) => sum + each.score, 0) / of.scores.length;
}
