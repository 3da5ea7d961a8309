/**
 * The bed from above as it takes its water, drawn on a canvas sixty times a second: cells that darken as they are wetted,
 * dots where grounds lie dry, a sheen of water that stands over them, pits where the stream has dug. Where the water falls
 * is the flame: that is where the hand is.
 */
import {
  BED_RINGS,
  BED_SECTORS,
  KEPT_RADIUS,
  ringEdge,
  swellOf,
  type BedPoint,
  type PathOutline,
  type PourHeight,
  type WettedBed,
} from '@even-kettle/core/pour';
import { FACE, type Theme } from '../../ui/theme';

/** What lies around the wall, as a share of the radius: a finger that strays is still seen. */
export const ROUND_IT = 1.12;
const CELLS = BED_RINGS * BED_SECTORS;
/** Dots a cell; each vanishes when less than its share is still dry. */
const DOTS = 6;
/** So much water over the bed looks full, grams. */
const FULL_G = 130;

export type Spot = { at: BedPoint; flowGPerS: number; height: PourHeight };
export type BedShown = {
  bed: WettedBed;
  keepsG: number;
  /** The path of the pour that is asked for, and where the spout should be on it now. */
  path: PathOutline | null;
  should: BedPoint | null;
  /** Where another pour's water fell at this second. */
  ghost: BedPoint | null;
  spot: Spot | null;
};

export type BedCanvas = { draw: (context: CanvasRenderingContext2D, shown: BedShown, theme: Theme) => void };

/** @param size the square's side, pixels */
export function bedCanvas(size: number): BedCanvas {
  const middle = size / 2;
  const wall = middle / ROUND_IT;
  const across = ({ x }: BedPoint) => middle + x * wall;
  const down = ({ y }: BedPoint) => middle - y * wall;
  const cells = Array.from({ length: CELLS }, (_, cell) => cellPath(cell, middle, wall));
  const dots = Array.from({ length: CELLS }, (_, cell) => dotsOf(cell, middle, wall));
  const disc = new Path2D();
  disc.arc(middle, middle, wall, 0, 2 * Math.PI);

  const draw: BedCanvas['draw'] = (context, { bed, keepsG, path, should, ghost, spot }, theme) => {
    context.clearRect(0, 0, size, size);
    context.fillStyle = theme.surface;
    context.fill(disc);
    drawCells(context, { bed, keepsG }, { cells, dots, disc }, theme);
    context.strokeStyle = path?.washes ? theme.cool : theme.ink;
    context.lineWidth = path?.washes ? 6 : 2;
    context.stroke(disc);
    ring(context, middle, wall * KEPT_RADIUS, theme.ink2, [3, 4]);
    if (path) drawPath(context, path, theme);
    if (should) mark(context, should, 11, theme.ink, null);
    if (ghost) mark(context, ghost, 9, theme.ink2, theme.coolPale);
    if (spot) drawSpot(context, spot, theme);
  };

  const drawPath = (context: CanvasRenderingContext2D, { line, dabs }: PathOutline, theme: Theme) => {
    context.globalAlpha = 0.55;
    context.strokeStyle = theme.ink;
    context.lineWidth = 2;
    context.setLineDash([2, 5]);
    context.beginPath();
    line.forEach((point, n) => context[n === 0 ? 'moveTo' : 'lineTo'](across(point), down(point)));
    context.stroke();
    context.setLineDash([]);
    context.fillStyle = theme.ink;
    for (const dab of dabs) {
      context.beginPath();
      context.arc(across(dab), down(dab), 4, 0, 2 * Math.PI);
      context.fill();
    }
    context.globalAlpha = 1;
  };

  const mark = (
    context: CanvasRenderingContext2D,
    at: BedPoint,
    radius: number,
    rim: string,
    fill: string | null,
  ) => {
    context.beginPath();
    context.arc(across(at), down(at), radius, 0, 2 * Math.PI);
    if (fill) {
      context.fillStyle = fill;
      context.fill();
    }
    context.strokeStyle = rim;
    context.lineWidth = 2;
    context.stroke();
  };

  /** Larger with more flow; a second ring where it falls from high. */
  const drawSpot = (context: CanvasRenderingContext2D, { at, flowGPerS, height }: Spot, theme: Theme) => {
    const radius = 5 + Math.min(9, flowGPerS);
    context.beginPath();
    context.arc(across(at), down(at), radius, 0, 2 * Math.PI);
    context.fillStyle = flowGPerS > 0 ? theme.flame : theme.surface;
    context.fill();
    context.strokeStyle = flowGPerS > 0 ? theme.surface : theme.flame;
    context.lineWidth = 2.5;
    context.stroke();
    if (height === 'high') mark(context, at, radius + 5, theme.flame, null);
  };

  return { draw };
}

type Shapes = { cells: Path2D[]; dots: { x: number; y: number }[][]; disc: Path2D };

/** The grounds, from what is wetted to what stands dry. */
function drawCells(
  context: CanvasRenderingContext2D,
  { bed, keepsG }: Pick<BedShown, 'bed' | 'keepsG'>,
  { cells, dots, disc }: Shapes,
  theme: Theme,
): void {
  const fillG = keepsG / CELLS;
  for (let cell = 0; cell < CELLS; cell += 1) {
    const wet = fillG > 0 ? Math.min(1, bed.heldG[cell]! / fillG) : 1;
    context.globalAlpha = 0.08 + 0.5 * wet;
    context.fillStyle = theme.cool;
    context.fill(cells[cell]!);
    if (bed.crater[cell]! > 0.05) {
      context.globalAlpha = 0.55 * bed.crater[cell]!;
      context.fillStyle = theme.ink;
      context.fill(cells[cell]!);
    }
  }
  context.globalAlpha = 0.35 * Math.min(1, bed.slurryG / FULL_G);
  context.fillStyle = theme.cool;
  context.fill(disc);
  context.globalAlpha = 1;
  context.fillStyle = theme.ink;
  for (let cell = 0; cell < CELLS; cell += 1)
    for (let dot = 0; dot < DOTS; dot += 1)
      if (bed.dry[cell]! > (dot + 0.5) / DOTS) {
        const { x, y } = dots[cell]![dot]!;
        context.fillRect(x - 1.2, y - 1.2, 2.4, 2.4);
      }
  // What swells shows as rings, larger while gas lifts it.
  context.strokeStyle = theme.surface;
  context.lineWidth = 1.2;
  for (let cell = 0; cell < CELLS; cell += 1) {
    const swollen = swellOf(bed, cell, keepsG);
    if (bed.gas[cell]! < 0.08 || swollen < 0.08) continue;
    const { x, y } = dots[cell]![cell % DOTS]!;
    context.beginPath();
    context.arc(x, y, 1.5 + 6 * swollen, 0, 2 * Math.PI);
    context.stroke();
  }
}

function ring(
  context: CanvasRenderingContext2D,
  middle: number,
  radius: number,
  color: string,
  dash: number[],
): void {
  context.strokeStyle = color;
  context.lineWidth = 1;
  context.setLineDash(dash);
  context.beginPath();
  context.arc(middle, middle, radius, 0, 2 * Math.PI);
  context.stroke();
  context.setLineDash([]);
}

const angleOf = (sector: number): number => (2 * Math.PI * sector) / BED_SECTORS - Math.PI / 2;

function cellPath(cell: number, middle: number, wall: number): Path2D {
  const [number, sector] = [Math.floor(cell / BED_SECTORS), cell % BED_SECTORS];
  const path = new Path2D();
  path.arc(middle, middle, wall * ringEdge(number + 1), angleOf(sector), angleOf(sector + 1));
  path.arc(middle, middle, wall * ringEdge(number), angleOf(sector + 1), angleOf(sector), true);
  path.closePath();
  return path;
}

/** Spread over the cell as a sunflower's seeds are, so that no rows are seen. */
function dotsOf(cell: number, middle: number, wall: number): { x: number; y: number }[] {
  const [number, sector] = [Math.floor(cell / BED_SECTORS), cell % BED_SECTORS];
  return Array.from({ length: DOTS }, (_, dot) => {
    const turn = ((cell * DOTS + dot) * 0.618034) % 1;
    const out = (dot + 0.5) / DOTS;
    const inner = ringEdge(number) ** 2;
    const radius = wall * Math.sqrt(inner + (ringEdge(number + 1) ** 2 - inner) * out);
    const angle = angleOf(sector + 0.1 + 0.8 * turn);
    return { x: middle + radius * Math.cos(angle), y: middle + radius * Math.sin(angle) };
  });
}

/** What a canvas writes is in the face of the page. */
export const canvasFont = (px: number): string => `${px}px ${FACE.regular}, sans-serif`;
