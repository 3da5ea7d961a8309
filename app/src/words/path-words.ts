/**
 * Where the water goes, in words: the path, how high, and what to do with the wall.
 */
import type { PathPart, PourHeight, WallWay, WaterPath } from '@even-kettle/core/pour';
import type { CardPath, CardStep, StartCue } from '@even-kettle/core/recipe';
import { inWords, showMass, type Units } from '@even-kettle/core/units';

export const PATH_WORDS: Record<WaterPath, string> = {
  centre: 'In the middle',
  ring: 'A ring, half-way out',
  spiral: 'Spiral, out and back',
  cross: 'Short dabs in a cross',
  edge: 'Once round the edge',
  halo: 'Middle, then round its pale edge',
  'all over': 'All over, every ground wet',
};
export const HEIGHT_WORDS: Record<PourHeight, string> = {
  low: 'low, 3 to 5 cm',
  high: 'high, 10 to 15 cm',
};
export const WALL_WORDS: Record<WallWay, string> = {
  kept: 'off the wall',
  washed: 'wash the wall at the end',
};
export const START_CUE_WORDS: Record<StartCue, string> = {
  'bed about to show': 'the bed is about to show',
  'stream thins': 'the stream thins',
};

/** One part: "Spiral, out and back; off the wall". */
export const pathInWords = (part: PathPart): string =>
  [PATH_WORDS[part.path], mannerInWords(part)].filter(Boolean).join('; ');

/** How high, what to do with the wall, and which way round: "low, 3 to 5 cm, off the wall". */
export const mannerInWords = ({ height, wall, turn }: PathPart): string =>
  [height ? HEIGHT_WORDS[height] : null, wall ? WALL_WORDS[wall] : null, turn ?? null]
    .filter(Boolean)
    .join(', ');

/** All parts: "In the middle to 97 g, then spiral, out and back; wash the wall at the end". */
export const pathsInWords = ({ paths = [] }: Pick<CardStep, 'paths'>, units: Units): string =>
  paths.map((part, n) => (n === 0 ? upTo(part, units) : `then ${lower(upTo(part, units))}`)).join(', ');

const upTo = (part: CardPath, units: Units): string =>
  part.toG === undefined
    ? pathInWords(part)
    : `${pathInWords(part)} to ${inWords(showMass(part.toG, units, 'water'))}`;
export const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
