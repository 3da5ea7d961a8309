/**
 * What can go wrong in a brew, reported in one tap, and what to do about it at once.
 */
import { METHODS, roleOf, type CardStep, type MethodId } from '../recipe';

export const NOTES = [
  'stalled',
  'ran-fast',
  'water-out',
  'not-rising',
  'too-hot',
  'hard-plunge',
  'spilt',
  'rinse-left',
  'collapsed',
  'still-brewing',
] as const;
export type Note = (typeof NOTES)[number];

type NoteWords = {
  /** As a barista would say it. */
  name: string;
  /** What to do now, in a line. */
  now: string;
  /** What to change next time; one change. */
  next: string;
};

/** What a note means for a method. */
export function noteWords(note: Note, method: MethodId): NoteWords {
  switch (note) {
    case 'stalled':
      return {
        name: 'Stalled',
        now: METHODS[method].stall.now,
        next: METHODS[method].stall.next,
      };
    case 'ran-fast':
      return {
        name: 'Ran too fast',
        now: 'Taste it when it is done; a thin cup can still be given less bypass or remade.',
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
    case 'rinse-left':
      return {
        name: 'Rinse water left in',
        now: 'Tip it out at once, if no coffee has run into it yet.',
        next: 'Empty the server before the coffee goes in, and tare after that.',
      };
    case 'collapsed':
      return {
        name: 'Filter collapsed',
        now: 'The cup is brewed again: clear it away, and weigh fresh beans.',
        next: 'Seat the filter flat against the wall, and pour the first water gently.',
      };
    case 'still-brewing':
      return {
        name: 'Still brewing',
        now: 'It still brews, so it is not asked after again.',
        next: 'Tap what is done, so that the others know.',
      };
  }
}

/** Rinse water and a filter that gives way: where a filter was rinsed over a server. */
const filtered = (method: MethodId): Note[] =>
  METHODS[method].rinsed === 'Rinsed' && METHODS[method].iceIn === 'the server'
    ? METHODS[method].hasCloth
      ? ['rinse-left']
      : ['rinse-left', 'collapsed']
    : [];

/** The notes that are possible while a step of a method runs, the likeliest first. */
export function notesFor(method: MethodId, step: CardStep): Note[] {
  if (step.phase !== 'brew' && step.kind !== 'watch') return [];
  const drains = METHODS[method].drawdownExponent !== null;
  if (step.kind === 'drawdown') return ['stalled', 'ran-fast', ...filtered(method)];
  if (step.kind === 'pour')
    return drains
      ? ['stalled', 'ran-fast', 'water-out', 'spilt', ...filtered(method)]
      : ['water-out', 'spilt'];
  if (roleOf(method, step) === 'draw-down') return ['stalled', 'ran-fast'];
  if (roleOf(method, step) === 'watch-water') return ['not-rising'];
  if (METHODS[method].heatedIn === 'globe') return ['too-hot', 'spilt'];
  if (step.kind === 'plunge' || step.kind === 'dip' || step.kind === 'press') return ['hard-plunge', 'spilt'];
  return drains ? ['stalled', 'ran-fast', 'spilt', ...filtered(method)] : ['spilt'];
}
