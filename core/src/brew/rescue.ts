/**
 * What can still be saved while a brew runs: what helps when it drains too slowly or too fast, what water too much does to
 * the cup, and brews that nobody has touched for long.
 */
import { METHODS, type BrewCard, type Help } from '../recipe';
import type { BrewState } from './state';
import { anchorMs, timelineAt } from './timeline';

/** Something that helps now, and about how much later (or, below 0, sooner) the brew is then done, seconds. */
export type Remedy = { words: string; byS: number };
export type Rescue = { runs: 'slow' | 'fast'; remedies: Remedy[] };

/** Less than this is not worth a word, seconds. */
const LEAST_S = 3;

/**
 * What helps a brew that drains too slowly or too fast; null where it is neither, or where nothing helps any more. It is slow
 * once it is past its window or somebody said so; fast where somebody said so.
 */
export function rescueOf(brew: BrewState, nowMs: number): Rescue | null {
  if (brew.status !== 'running') return null;
  const times = timelineAt(brew, nowMs);
  const end = times.findLast(({ step }) => step.phase === 'brew');
  const zeroMs = anchorMs(brew, nowMs);
  if (zeroMs === null || !end || end.status === 'done') return null;
  const said = brew.notes?.findLast(({ note }) => note === 'stalled' || note === 'ran-fast')?.note;
  const isPast = (nowMs - zeroMs) / 1000 > brew.card.brewWindowS.to;
  const runs = said === 'ran-fast' ? 'fast' : said === 'stalled' || isPast ? 'slow' : null;
  if (runs === null) return null;
  const poursLeft = times.some(
    ({ step, status }) => step.kind === 'pour' && (status === 'waiting' || status === 'running'),
  );
  const drawdownS = brew.card.steps.find(({ kind }) => kind === 'drawdown')?.durationS ?? 0;
  const remedies = METHODS[brew.card.method].helps[runs]
    .filter((help) => help.while !== (poursLeft ? 'draining' : 'pouring'))
    .map((help) => remedyOf(help, drawdownS))
    .filter(({ byS }) => Math.abs(byS) >= LEAST_S);
  return remedies.length > 0 ? { runs, remedies } : null;
}

const remedyOf = ({ words, share }: Help, drawdownS: number): Remedy => ({
  words,
  byS: Math.round(share * drawdownS),
});

/** From the first step of a brew to its cup handed over, seconds: what brewing it again takes. */
export function remakeS({ steps }: BrewCard): number {
  const serve = steps.find(({ kind }) => kind === 'serve');
  return (serve?.endS ?? 0) - (steps[0]?.startS ?? 0);
}

/** Rinse water that was left in the server: how much, how strong the cup is then (1 as planned), and its ratio. */
export function rinseLeft(card: BrewCard): { rinseG: number; strengthShare: number; ratio: number } {
  const { rinseG } = METHODS[card.method];
  return {
    rinseG,
    strengthShare: card.beverageG / (card.beverageG + rinseG),
    ratio: (card.brewWaterG + card.bypassG + rinseG) / card.doseG,
  };
}

/** A step that should have been over this long ago has been forgotten, milliseconds. */
const FORGOTTEN_MS = 8 * 60_000;

/**
 * How long ago the step that a running brew waits with should have been over, milliseconds, where that is so long that it
 * should be asked after; null otherwise, and once somebody has said that it still brews.
 */
export function forgottenMs(brew: BrewState, nowMs: number): number | null {
  if (brew.status !== 'running') return null;
  const open = timelineAt(brew, nowMs).find(({ status }) => status === 'running' || status === 'waiting');
  const answered = brew.notes?.some(({ note, atMs }) => note === 'still-brewing' && atMs >= brew.lastMs);
  const pastMs = open ? nowMs - Math.max(open.endMs, brew.lastMs) : 0;
  return pastMs > FORGOTTEN_MS && !answered ? pastMs : null;
}

/** Whether a flame burns under a brew: somebody then stays at the bar. */
export function flameBurns(brew: BrewState, nowMs: number): boolean {
  if (brew.status !== 'running') return false;
  const times = timelineAt(brew, nowMs);
  const statusOf = (id: string) => times.find(({ step }) => step.id === id)?.status;
  return brew.card.holds.some(
    ({ tool, from, to }) =>
      tool === 'burner' &&
      (statusOf(from) === 'done' || statusOf(from) === 'running') &&
      statusOf(to) !== 'done',
  );
}
