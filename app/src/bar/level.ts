/**
 * How full a running brew's vessel is, and where its next pour should bring it.
 */
import { timelineAt, type BrewState, type StepTime } from '@even-kettle/core/brew';
import { drainTauS, slurryG, type PouredSpan } from '@even-kettle/core/pour';
import { METHODS, brewerById } from '@even-kettle/core/recipe';

/** The brew's pours and drawdown as the card has them: its bed is taken to drain as planned. */
const planned = (brew: BrewState): PouredSpan[] =>
  brew.card.steps
    .filter((step) => step.pourG !== undefined)
    .map(({ startS, endS, pourG }) => ({ startS, endS, pourG: pourG! }));
function planDrawdownS({ card }: BrewState): number {
  const lastPour = card.steps.findLast((step) => step.pourG !== undefined);
  const end = card.steps.find((step) => step.kind === 'drawdown');
  return lastPour && end ? end.endS - lastPour.endS : 0;
}

export type Level = { level: number; target: number | null };

export function levelOf(brew: BrewState, nowMs: number): Level {
  const times = timelineAt(brew, nowMs);
  const capacityG = brewerById(brew.brewerId)?.maxWaterG ?? brew.card.brewWaterG;
  if (!brew.card.steps.some((step) => step.pourG !== undefined))
    return { level: (standing(times, nowMs) * brew.card.brewWaterG) / capacityG, target: null };
  const pours = times.filter(({ step }) => step.pourG !== undefined);
  const served = times.some(({ step, status }) => step.kind === 'serve' && status === 'done');
  const drains = METHODS[brew.card.method].drawdownExponent !== null;
  const spanOf = ({ step, startMs, endMs }: (typeof pours)[number]): PouredSpan => ({
    startS: startMs / 1000,
    endS: endMs / 1000,
    pourG: step.pourG!,
  });
  const begun = pours.filter(({ status }) => status === 'done' || status === 'running').map(spanOf);
  const drawdown = times.find(({ step }) => step.kind === 'drawdown');
  const lastPour = pours.at(-1);
  const tauS = drains && drawdown && lastPour ? drainTauS(planDrawdownS(brew), planned(brew)) : Infinity;
  const drained = served || drawdown?.status === 'done';
  const level = drained ? 0 : slurryG(begun, tauS, nowMs / 1000) / capacityG;
  const next = pours.find(({ status }) => status === 'waiting' || status === 'running');
  const target = next
    ? slurryG(
        [...begun.filter(({ startS }) => startS < next.startMs / 1000), spanOf(next)],
        tauS,
        next.endMs / 1000,
      ) / capacityG
    : null;
  return { level, target };
}

/** Without pours: the share of the water that stands where the coffee is, as it rises and is drawn down again. */
function standing(times: readonly StepTime[], nowMs: number): number {
  const share = ({ startMs, endMs, status }: StepTime) =>
    status === 'done'
      ? 1
      : status === 'waiting'
        ? 0
        : Math.min(1, Math.max(0, (nowMs - startMs) / (endMs - startMs)));
  const find = (id: string) => times.find(({ step }) => step.id === id);
  const up = find('rise') ?? find('load') ?? find('stir');
  const down = find('down') ?? find('serve');
  return (up ? share(up) : 0) - (down ? share(down) : 0);
}
