/**
 * The line of weight over time around this second: what is asked for, what the scale reads, and another pour's.
 */
import { scaleLinear } from 'd3-scale';
import { shouldReadG, type Drill, type Sample } from '@even-kettle/core/practice';
import type { Theme } from '../../ui/theme';
import { canvasFont } from './bed-canvas';

/** So much of what was and of what comes is shown, seconds. */
const BEHIND_S = 8;
const AHEAD_S = 14;
const STEP_S = 0.5;
const EDGE = { left: 40, right: 10, top: 8, bottom: 8 };

export type LineShown = {
  drill: Drill;
  /** Seconds of the try; null shows all of it. */
  atS: number | null;
  samples: readonly Sample[];
  ghost: readonly Sample[];
};

export function drawLine(
  context: CanvasRenderingContext2D,
  { width, height }: { width: number; height: number },
  { drill, atS, samples, ghost }: LineShown,
  theme: Theme,
): void {
  const fromS = atS === null ? 0 : Math.max(0, atS - BEHIND_S);
  const toS = atS === null ? drill.endS : fromS + BEHIND_S + AHEAD_S;
  const x = scaleLinear([fromS, toS], [EDGE.left, width - EDGE.right]);
  const seconds = Array.from({ length: Math.ceil((toS - fromS) / STEP_S) + 1 }, (_, n) => fromS + n * STEP_S);
  const should = seconds.map((s) => shouldReadG(drill, s));
  const inSight = (from: readonly Sample[]) => from.filter(({ s }) => s >= fromS && s <= toS);
  const [own, other] = [inSight(samples), inSight(ghost)];
  const lowG = Math.min(should[0]!, own[0]?.g ?? Infinity);
  const highG = Math.max(should.at(-1)!, own.at(-1)?.g ?? 0, lowG + 20);
  const y = scaleLinear([lowG, highG], [height - EDGE.bottom, EDGE.top]);
  context.clearRect(0, 0, width, height);
  context.font = canvasFont(12);
  context.textAlign = 'right';
  context.textBaseline = 'middle';
  for (const tick of y.ticks(3)) {
    context.strokeStyle = theme.rim;
    context.lineWidth = 0.7;
    context.beginPath();
    context.moveTo(EDGE.left, y(tick));
    context.lineTo(width - EDGE.right, y(tick));
    context.stroke();
    context.fillStyle = theme.ink2;
    context.fillText(String(tick), EDGE.left - 6, y(tick));
  }
  const line = (
    points: readonly { s: number; g: number }[],
    color: string,
    thick: number,
    dash: number[],
  ) => {
    context.strokeStyle = color;
    context.lineWidth = thick;
    context.setLineDash(dash);
    context.beginPath();
    points.forEach(({ s, g }, n) => context[n === 0 ? 'moveTo' : 'lineTo'](x(s), y(g)));
    context.stroke();
    context.setLineDash([]);
  };
  // What is asked for is broad and pale, what is poured thin and dark over it; another pour's is dashed.
  line(
    seconds.map((s, n) => ({ s, g: should[n]! })),
    theme.coolPale,
    12,
    [],
  );
  line(
    seconds.map((s, n) => ({ s, g: should[n]! })),
    theme.cool,
    1.5,
    [],
  );
  line(other, theme.ink2, 1.5, [2, 3]);
  line(own, theme.ink, 2.5, []);
  if (atS === null) return;
  context.strokeStyle = theme.ink2;
  context.lineWidth = 1;
  context.setLineDash([4, 3]);
  context.beginPath();
  context.moveTo(x(atS), EDGE.top);
  context.lineTo(x(atS), height - EDGE.bottom);
  context.stroke();
  context.setLineDash([]);
}
