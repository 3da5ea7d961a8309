/**
 * Where the water goes: for every second of a pour the place on the bed, seen from above, at which the spout should be.
 *
 * The bed is a disc of radius 1; x grows to the right and y away from the person. A path is drawn for a right hand,
 * which goes round clockwise; the other hand's is its mirror image.
 */

/**
 * `centre`; `ring`, a circle half-way out; `spiral`, from the middle out and back; `cross`, short dabs north, east,
 * south, west and in the middle; `edge`, round just inside the wall; `halo`, the middle for some seconds, then outwards
 * along the edge of the pale middle; `all over`, every ground wet.
 */
export const WATER_PATHS = ['centre', 'ring', 'spiral', 'cross', 'edge', 'halo', 'all over'] as const;
export type WaterPath = (typeof WATER_PATHS)[number];

/** How high the spout is over the bed: `low` 3 to 5 cm, which is gentle; `high` 10 to 15 cm, which stirs. */
export const POUR_HEIGHTS = ['low', 'high'] as const;
export type PourHeight = (typeof POUR_HEIGHTS)[number];

/** The wall is `kept` half a centimetre off, or `washed` once at the end, which brings stranded grounds down. */
export const WALL_WAYS = ['kept', 'washed'] as const;
export type WallWay = (typeof WALL_WAYS)[number];

export const TURNS = ['clockwise', 'anticlockwise'] as const;
export type Turn = (typeof TURNS)[number];

export type Hand = 'right' | 'left';

/** One path at one height. What is left out is the person's own: the way round, the height. The wall is then kept. */
export type PathPart = { path: WaterPath; height?: PourHeight; wall?: WallWay; turn?: Turn };

export type BedPoint = { x: number; y: number };

/** The radius of a common bed, cm. */
const BED_CM = 3.5;
/** Water on the paper runs past the coffee, so that the spout keeps this far from the wall, cm. */
const OFF_WALL_CM = 0.5;
/** The furthest out that water may fall, where the wall is kept. */
export const KEPT_RADIUS = 1 - OFF_WALL_CM / BED_CM;
const HALF_WAY = 0.5;
const DAB_RADIUS = 0.55;
/** Along the wall itself, and the part of a pour that washes it. */
const WASHED_RADIUS = 0.98;
const WASHED_SHARE = 0.2;
/** Seconds of one round, of one way out and back, and of one dab: what a calm hand does. */
const ROUND_S = 3.5;
const SPIRAL_S = 8;
const SPIRAL_ROUNDS = 2.5;
const DAB_S = 1.4;
const PLUME_MIDDLE_S = 4;
const PLUME_MIDDLE_SHARE = 0.35;

const DABS: readonly BedPoint[] = [
  { x: 0, y: DAB_RADIUS },
  { x: DAB_RADIUS, y: 0 },
  { x: 0, y: -DAB_RADIUS },
  { x: -DAB_RADIUS, y: 0 },
  { x: 0, y: 0 },
];

/**
 * Where the spout should be.
 * @param atS seconds since this part of the pour began; before it and after it, its ends
 * @param lastsS how long this part lasts, seconds, over 0
 */
export function spoutAt(part: PathPart, atS: number, lastsS: number, hand: Hand = 'right'): BedPoint {
  const lengthS = Math.max(lastsS, 1e-6);
  const forS = Math.min(Math.max(atS, 0), lengthS);
  const washS = part.wall === 'washed' ? lengthS * WASHED_SHARE : 0;
  const inS = lengthS - washS;
  const point =
    forS <= inS
      ? onPath(part.path, forS, inS, part.wall === 'washed' ? WASHED_RADIUS : KEPT_RADIUS)
      : polar(WASHED_RADIUS, (forS - inS) / washS);
  return wayRound(part, hand) === 'clockwise' ? point : { x: -point.x, y: point.y };
}

/** The way round: the part's own, or the hand's. */
export const wayRound = ({ turn }: Pick<PathPart, 'turn'>, hand: Hand): Turn =>
  turn ?? (hand === 'right' ? 'clockwise' : 'anticlockwise');

function onPath(path: WaterPath, forS: number, lastsS: number, outmost: number): BedPoint {
  switch (path) {
    case 'centre':
      return { x: 0, y: 0 };
    case 'ring':
      return polar(HALF_WAY, whole(lastsS / ROUND_S) * (forS / lastsS));
    case 'edge':
      return polar(Math.min(outmost, KEPT_RADIUS), forS / lastsS);
    case 'cross': {
      const dabs = whole(lastsS / (DAB_S * DABS.length)) * DABS.length;
      return DABS[Math.min(dabs - 1, Math.floor((forS / lastsS) * dabs)) % DABS.length]!;
    }
    case 'spiral':
    case 'all over':
      return outAndBack(forS / lastsS, whole(lastsS / SPIRAL_S), path === 'spiral' ? KEPT_RADIUS : outmost);
    case 'halo': {
      const middleS = Math.min(PLUME_MIDDLE_S, lastsS * PLUME_MIDDLE_SHARE);
      if (forS <= middleS) return { x: 0, y: 0 };
      const outS = lastsS - middleS;
      return outwards((forS - middleS) / outS, Math.max(1, outS / ROUND_S), KEPT_RADIUS);
    }
  }
}

const whole = (count: number): number => Math.max(1, Math.round(count));

/** Clockwise from the far side. @param rounds how often round so far */
const polar = (radius: number, rounds: number): BedPoint => {
  const angle = 2 * Math.PI * rounds;
  return { x: radius * Math.sin(angle), y: radius * Math.cos(angle) };
};

/** A spiral of even lines at an even pace: radius and angle both grow with the root of time, so that area grows with time. */
const outwards = (share: number, rounds: number, outmost: number): BedPoint => {
  const root = Math.sqrt(share);
  return polar(outmost * root, rounds * root);
};

function outAndBack(share: number, times: number, outmost: number): BedPoint {
  const within = (share * times) % 1;
  const out = within <= 0.5;
  const point = outwards(out ? within * 2 : 2 - within * 2, SPIRAL_ROUNDS, outmost);
  // On the way back the hand keeps its way round: the angle goes on from where it turned.
  return out ? point : turned(point);
}

/** The way back in: mirrored at the line through the middle and the place where it turned. */
const turned = ({ x, y }: BedPoint): BedPoint => {
  const turnedAt = 2 * Math.PI * SPIRAL_ROUNDS;
  const cos = Math.cos(2 * turnedAt);
  const sin = Math.sin(2 * turnedAt);
  return { x: -x * cos + y * sin, y: x * sin + y * cos };
};

/** A part of a pour with the seconds, from the pour's start, between which it is poured. */
export type TimedPart = PathPart & { fromS: number; toS: number };

/** Where the spout should be at a second of a pour in parts; null where its path is not said. */
export function spoutOf(parts: readonly TimedPart[], atS: number, hand: Hand = 'right'): BedPoint | null {
  const part = parts.find(({ toS }) => atS < toS) ?? parts.at(-1);
  return part ? spoutAt(part, atS - part.fromS, part.toS - part.fromS, hand) : null;
}

/** The line that a part draws, as points evenly in time, its two ends included. */
export const lineOf = (part: PathPart, lastsS: number, points: number, hand: Hand = 'right'): BedPoint[] =>
  Array.from({ length: points }, (_, n) => spoutAt(part, (n / (points - 1)) * lastsS, lastsS, hand));
