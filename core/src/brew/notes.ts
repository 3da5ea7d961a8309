/**
 * What goes wrong in a brew, said in one tap, and what to do about it there and then.
 */
import { roleOf, type CardStep, type MethodId } from '../recipe';

export const NOTES = [
  'stalled',
  'ran-fast',
  'water-out',
  'not-rising',
  'too-hot',
  'hard-plunge',
  'spilt',
] as const;
export type Note = (typeof NOTES)[number];

type NoteWords = {
  /** As a barista would say it. */
  name: string;
  /** What to do now, in a line. */
  now: string;
  /** What to change next time; one thing. */
  next: string;
};

const POURED: readonly MethodId[] = ['cone', 'flat', 'hourglass', 'sock'];
const FREE_THE_AIR =
  'Lift the filter a little, or free the spout with a stick, so that the air can leave. Then let it run.';

/** What a note means for a method. */
export function noteWords(note: Note, method: MethodId): NoteWords {
  switch (note) {
    case 'stalled':
      return {
        name: 'Stalled',
        now: stalled(method),
        next:
          method === 'siphon'
            ? 'One step coarser, and boil the cloth.'
            : 'First free the air; if it stalls again, one step coarser.',
      };
    case 'ran-fast':
      return {
        name: 'Ran too fast',
        now: 'Let it finish and taste it; a thin cup can still be given less bypass or remade.',
        next: 'One step finer, and pour more gently.',
      };
    case 'water-out':
      return {
        name: 'Water ran out',
        now: 'Refill and go on to the same reading. The clock goes on; keep the bed wet if you can.',
        next: 'Fill to what the card says: it counts rinse and spare.',
      };
    case 'not-rising':
      return {
        name: 'Water does not rise',
        now: 'A little more flame, and press the top gently home: the seal leaks. Never force hot glass.',
        next: 'Seat the top straight, with its seal wetted.',
      };
    case 'too-hot':
      return {
        name: 'Too hot above',
        now: 'Stir air in, or lower the flame.',
        next: 'Lower the flame as soon as it has risen.',
      };
    case 'hard-plunge':
      return {
        name: 'Hard to press',
        now: 'Stop and lift a little. Wait, then press straight down, slowly. Never force a plunger: it can spray scalding slurry.',
        next: 'One step coarser.',
      };
    case 'spilt':
      return {
        name: 'Spilt',
        now: 'Mind the scald: hands first. If little is gone, tell the scale’s reading and go on; else give the brew up and start again.',
        next: 'A calmer pour, or a larger brewer.',
      };
  }
}

function stalled(method: MethodId): string {
  if (method === 'hourglass') return FREE_THE_AIR;
  if (method === 'siphon')
    return 'Flame off and away. Cover the top and wait; never shake or force hot glass.';
  if (method === 'sock') return 'Lift the sock once and let it fall back straight; do not squeeze it.';
  return 'Lift the filter’s edge once so that air gets under it, and swirl gently.';
}

/** The notes that can be true while a step of a method runs, likeliest first. */
export function notesFor(method: MethodId, step: CardStep): Note[] {
  if (step.phase !== 'brew' && step.kind !== 'watch') return [];
  const drains = POURED.includes(method);
  if (step.kind === 'drawdown') return ['stalled', 'ran-fast'];
  if (step.kind === 'pour')
    return drains ? ['stalled', 'ran-fast', 'water-out', 'spilt'] : ['water-out', 'spilt'];
  if (roleOf(method, step) === 'draw-down') return ['stalled', 'ran-fast'];
  if (step.kind === 'watch' && method === 'siphon') return ['not-rising'];
  if (method === 'siphon') return ['too-hot', 'spilt'];
  if (step.kind === 'plunge' || step.kind === 'dip' || step.kind === 'press') return ['hard-plunge', 'spilt'];
  return drains ? ['stalled', 'ran-fast', 'spilt'] : ['spilt'];
}
