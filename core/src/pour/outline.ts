/**
 * A path as it is drawn: one round of it, one way out, each dab once.
 */
import { lineOf, type BedPoint, type Hand, type PathPart } from './water-path';

export type PathOutline = {
  /** The line that the spout draws, in order; empty where it stays in one place. */
  line: BedPoint[];
  /** Places where the water falls for a while. */
  dabs: BedPoint[];
  /** Along the wall at the end. */
  washes: boolean;
};

const POINTS = 72;
/** Long enough for one round, or one way out and back, seconds. */
const ONCE_S: Record<PathPart['path'], number> = {
  centre: 1,
  ring: 3.5,
  spiral: 8,
  cross: 7,
  edge: 10,
  halo: 12,
  'all over': 8,
};
const MIDDLE: BedPoint = { x: 0, y: 0 };

export function outlineOf({ wall, ...part }: PathPart, hand: Hand = 'right'): PathOutline {
  const washes = wall === 'washed';
  const whole = lineOf(part, ONCE_S[part.path], POINTS * 2, hand);
  switch (part.path) {
    case 'centre':
      return { line: [], dabs: [MIDDLE], washes };
    case 'cross': {
      const dabs = whole.filter(({ x, y }, n) => n === 0 || x !== whole[n - 1]!.x || y !== whole[n - 1]!.y);
      return { line: [], dabs, washes };
    }
    case 'spiral':
    case 'all over':
      return { line: whole.slice(0, POINTS), dabs: [], washes };
    case 'halo':
      return { line: whole, dabs: [MIDDLE], washes };
    default:
      return { line: whole, dabs: [], washes };
  }
}
