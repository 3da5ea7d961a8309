/**
 * How full a running brew's vessel is, and where its next pour should bring it.
 */
import { timelineAt, type BrewState } from '@even-kettle/core/brew';
import { drainTauS, slurryG, type PouredSpan } from '@even-kettle/core/pour';
import { METHODS, brewerById } from '@even-kettle/core/recipe';

export type Level = { level: number; target: number | null };

export function levelOf(brew: BrewState, nowMs: number): Level {
  const times = timelineAt(brew, nowMs);
  const capacityG = brewerById(brew.brewerId)?.maxWaterG ?? brew.card.brewWaterG;
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
  const tauS =
    drains && drawdown && lastPour ? drainTauS(drawdown.step.durationS, lastPour.step.pourG!) : Infinity;
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
