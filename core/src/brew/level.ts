/**
 * How full a running brew's vessel is, and where its next pour should bring it.
 */
import { NO_DRAIN, bedOf, secondsUntil, slurryG, type Bed, type PouredSpan } from '../pour';
import { METHODS, brewerById, roleOf, type BrewCard, type StepKind, type StepRole } from '../recipe';
import type { BrewState } from './state';
import { timelineAt, type StepTime } from './timeline';

/** The brew's pours and drawdown as its card has them: its bed is taken to drain as planned. */
const planned = (card: BrewCard): PouredSpan[] =>
  card.steps
    .filter((step) => step.pourG !== undefined)
    .map(({ startS, endS, pourG }) => ({ startS, endS, pourG: pourG! }));
/** From the end of the last pour to a dry bed, as the card has it, seconds; 0 where nothing drains. */
export function planDrawdownS(card: BrewCard): number {
  const lastPour = card.steps.findLast((step) => step.pourG !== undefined);
  const end = card.steps.find((step) => step.kind === 'drawdown');
  return lastPour && end ? end.endS - lastPour.endS : 0;
}

/** Shares of what the vessel holds. */
export type Level = { level: number; target: number | null };

/** With less than this standing over it the top of the bed is bare, grams. */
const BED_SHOWS_G = 8;

/** The brew's bed, fitted to its own drawdown. */
export function brewBed(brew: BrewState): Bed {
  const known = beds.get(brew.card);
  if (known !== undefined) return known;
  const bed = fitBed(brew);
  beds.set(brew.card, bed);
  return bed;
}
/** Cards are never changed, so each is fitted once: levels are drawn several times a second. */
const beds = new WeakMap<BrewCard, Bed>();

function fitBed({ card }: BrewState): Bed {
  return bedOfCard(card, planned(card));
}

/** The bed of a card that is dry at the end of its drawdown, if so much is poured into it. */
export function bedOfCard(card: BrewCard, pours: readonly PouredSpan[]): Bed {
  const drains = METHODS[card.method].drawdownExponent !== null;
  const drawdownS = planDrawdownS(card);
  return drains && drawdownS > 0 ? bedOf(drawdownS, pours, card.doseG) : NO_DRAIN;
}

/**
 * When the bed will show if nothing more is poured, bar milliseconds: "pour again before the bed shows". Null where
 * no pour is to come, none has been, or nothing drains.
 */
export function bedShowsMs(brew: BrewState, nowMs: number): number | null {
  const pours = timelineAt(brew, nowMs).filter(({ step }) => step.pourG !== undefined);
  const poured = pours.filter(({ status }) => status === 'done');
  const bed = brewBed(brew);
  const last = poured.at(-1);
  if (!last || pours.some(({ status }) => status === 'running') || poured.length === pours.length)
    return null;
  const standsG = slurryG(poured.map(spanOf), bed, last.endMs / 1000);
  if (bed === NO_DRAIN) return null;
  return last.endMs + secondsUntil(standsG, BED_SHOWS_G, bed) * 1000;
}

const spanOf = ({ step, startMs, endMs }: StepTime): PouredSpan => ({
  startS: startMs / 1000,
  endS: endMs / 1000,
  pourG: step.pourG!,
});

export function levelOf(brew: BrewState, nowMs: number): Level {
  const times = timelineAt(brew, nowMs);
  const own = brew.ownBrewer?.id === brew.brewerId ? brew.ownBrewer : undefined;
  const capacityG = (own ?? brewerById(brew.brewerId))?.maxWaterG ?? brew.card.brewWaterG;
  if (!brew.card.steps.some((step) => step.pourG !== undefined))
    return { level: (standing(brew, times, nowMs) * brew.card.brewWaterG) / capacityG, target: null };
  const pours = times.filter(({ step }) => step.pourG !== undefined);
  const served = times.some(({ step, status }) => step.kind === 'serve' && status === 'done');
  const begun = pours.filter(({ status }) => status === 'done' || status === 'running').map(spanOf);
  const drawdown = times.find(({ step }) => step.kind === 'drawdown');
  const bed = brewBed(brew);
  const drained = served || drawdown?.status === 'done';
  const level = drained ? 0 : slurryG(begun, bed, nowMs / 1000) / capacityG;
  const next = pours.find(({ status }) => status === 'waiting' || status === 'running');
  const target = next
    ? slurryG(
        [...begun.filter(({ startS }) => startS < next.startMs / 1000), spanOf(next)],
        bed,
        next.endMs / 1000,
      ) / capacityG
    : null;
  return { level, target };
}

/** Without pours: the share of the water that stands where the coffee is, as it rises and is drawn down again. */
function standing({ card: { method } }: BrewState, times: readonly StepTime[], nowMs: number): number {
  const share = ({ startMs, endMs, status }: StepTime) =>
    status === 'done'
      ? 1
      : status === 'waiting'
        ? 0
        : Math.min(1, Math.max(0, (nowMs - startMs) / (endMs - startMs)));
  const ofKind = (kind: StepKind) => times.find(({ step }) => step.kind === kind);
  const inRole = (role: StepRole) => times.findLast(({ step }) => roleOf(method, step) === role);
  const up = inRole('watch-water') ?? ofKind('load') ?? ofKind('stir');
  const down = inRole('draw-down') ?? ofKind('serve');
  return (up ? share(up) : 0) - (down ? share(down) : 0);
}
