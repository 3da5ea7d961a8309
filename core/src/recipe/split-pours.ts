/**
 * A pour that would rise over the brewer's rim is split by a pause, visibly.
 */
import { bedOf, slurryG, type Bed, type PouredSpan } from '../pour';
import type { Brewer } from './methods/brewer';
import { BREATH_S, type Timeline } from './lay-out';
import type { PourTarget } from './pours';
import type { RecipeStep } from './recipe';

/** A pause lets the slurry fall to this share of what the brewer holds, so that each part is worth pouring. */
const REFILL_SHARE = 0.6;
/** More parts than this is not a pour any more: the brewer is too small, and the dose range says so first. */
const PARTS_MAX = 8;

type Part = { pourG: number; pauseS: number };
export type SplitPours = {
  steps: RecipeStep[];
  pours: Map<string, PourTarget>;
  notes: string[];
};

/** Water that stands in a brewer: over the bed, and what the bed keeps of what was poured. */
type Standing = Bed & { keepsG: number };

const standsG = (pours: readonly PouredSpan[], { keepsG, ...bed }: Standing, atS: number): number => {
  const pouredG = pours.reduce((sum, { pourG }) => sum + pourG, 0);
  return Math.min(pouredG, slurryG(pours, bed, atS) + keepsG);
};

/**
 * The same steps with every pour that would spill in parts, or null where none would. The last part keeps the pour's
 * own id, so that what follows it or is held until it stays as it was.
 * @param keepsG what the bed keeps of the water, grams
 */
export function splitAtRim(
  steps: readonly RecipeStep[],
  pours: ReadonlyMap<string, PourTarget>,
  timeline: Timeline,
  brewer: Brewer,
  doseG: number,
  keepsG: number,
): SplitPours | null {
  const spans = timeline.steps
    .filter((step) => step.pourG !== undefined)
    .map(({ id, startS, endS, pourG }) => ({ id, startS, endS, pourG: pourG! }));
  if (timeline.drawdownS === null || spans.length === 0) return null;
  const parts = partsByPour(spans, { ...bedOf(timeline.drawdownS, spans, doseG), keepsG }, brewer.maxWaterG);
  if (parts.size === 0) return null;
  const split: SplitPours = { steps: [], pours: new Map(pours), notes: [] };
  for (const step of steps) {
    const into = parts.get(step.id);
    if (!into) split.steps.push(step);
    else pourInParts(split, step, into, pours.get(step.id)!, brewer);
  }
  return split;
}

function partsByPour(
  spans: readonly (PouredSpan & { id: string })[],
  bed: Standing,
  maxG: number,
): Map<string, Part[]> {
  const parts = new Map<string, Part[]>();
  const done: PouredSpan[] = [];
  for (const { id, startS, endS, pourG } of spans) {
    const flowGPerS = pourG / (endS - startS);
    let atS = Math.max(startS, done.length > 0 ? done.at(-1)!.endS + BREATH_S : startS);
    const into: Part[] = [];
    let leftG = pourG;
    let pauseS = 0;
    while (leftG > 0) {
      const fitsG = into.length === PARTS_MAX - 1 ? leftG : fitting(done, bed, atS, leftG, flowGPerS, maxG);
      const partG = Math.min(leftG, Math.max(1, fitsG));
      const span = { startS: atS, endS: atS + partG / flowGPerS, pourG: partG };
      done.push(span);
      into.push({ pourG: partG, pauseS });
      leftG -= partG;
      if (leftG === 0) break;
      pauseS = BREATH_S;
      while (standsG(done, bed, span.endS + pauseS) > maxG * REFILL_SHARE && pauseS < 120) pauseS += 1;
      atS = span.endS + pauseS;
    }
    if (into.length > 1) parts.set(id, into);
  }
  return parts;
}

/** Whole grams that can be poured from a moment on before the slurry stands at the rim. */
function fitting(
  done: readonly PouredSpan[],
  bed: Standing,
  fromS: number,
  pourG: number,
  flowGPerS: number,
  maxG: number,
): number {
  const after = (grams: number) => {
    const endS = fromS + grams / flowGPerS;
    return standsG([...done, { startS: fromS, endS, pourG: grams }], bed, endS);
  };
  if (after(pourG) <= maxG) return pourG;
  let low = 0;
  let high = pourG;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (after(middle) <= maxG) low = middle;
    else high = middle;
  }
  return low;
}

const PART = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth'];

function pourInParts(
  split: SplitPours,
  step: RecipeStep,
  parts: readonly Part[],
  whole: PourTarget,
  brewer: Brewer,
): void {
  let targetG = whole.targetG - whole.pourG;
  for (const [index, { pourG, pauseS }] of parts.entries()) {
    const first = index === 0;
    const last = index === parts.length - 1;
    const { anchor, ...unanchored } = step;
    const id = last ? step.id : `${step.id}.${index + 1}`;
    const keepsAnchor = anchor === 'start' ? first : last;
    targetG += pourG;
    split.pours.set(id, { pourG, targetG });
    split.steps.push({
      ...unanchored,
      id,
      name: `${step.name}, ${last ? 'last' : PART[index]!.toLowerCase()} part`,
      ...(first ? {} : { start: { afterS: pauseS } }),
      ...(anchor && keepsAnchor ? { anchor } : {}),
    });
  }
  const pauses = parts.slice(1).map(({ pauseS }) => `${pauseS} s`);
  split.notes.push(
    `${step.name} in ${parts.length} parts with ${pauses.join(', ')} between: all at once would rise over the rim of the ${brewer.name} (${brewer.maxWaterG} g).`,
  );
}
