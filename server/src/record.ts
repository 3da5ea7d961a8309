/**
 * The record of a finished brew: planned against measured. It is a projection of the log.
 */
import type { BrewRecord } from '@even-kettle/core/contract';
import {
  anchorMs,
  brewTimeMs,
  brewTimeOf,
  everyBrew,
  timelineAt,
  isRemark,
  queueOf,
  type BarState,
  type BrewStarted,
  type BrewState,
  type CupState,
  type StepTime,
} from '@even-kettle/core/brew';
import { extractionYieldPct } from '@even-kettle/core/learn';
import { METHODS, type CardStep, type MethodId } from '@even-kettle/core/recipe';

/** Whether it was handed over and came back, so that its cup was brewed again. */
export const isSentBack = (state: BarState, { id, orderId }: BrewState): boolean =>
  state.orders[orderId]?.events.some((event) => event.type === 'cup-remade' && event.brewId === id) ?? false;

/** A bed drains from the end of the last pour, whatever is done before its own step begins; a siphon from when its flame is off. */
function drainsFrom(method: MethodId, times: readonly StepTime[], drawdown: StepTime): number {
  const lastPour = times.findLast(
    ({ step, status }) => step.kind === 'pour' && step.phase === 'brew' && status === 'done',
  );
  const isBed = METHODS[method].drawdownExponent !== null;
  return isBed && lastPour ? lastPour.endMs : drawdown.startMs;
}

/** The record of a brew that was served or stopped; null while it is running. */
// eslint-disable-next-line max-lines-per-function -- it fills one record field by field
export function recordOf(state: BarState, brew: BrewState): BrewRecord | null {
  const order = state.orders[brew.orderId];
  const endedMs = brew.servedMs ?? brew.abandoned?.atMs;
  if (!order || endedMs === undefined) return null;
  const { card, ask, planned } = brew;
  const queue = queueOf(order);
  const started = brew.events[0] as BrewStarted;
  const times = timelineAt(brew, brew.lastMs);
  const zeroMs = anchorMs(brew, brew.lastMs);
  const fromZeroS = (atMs: number) => (zeroMs === null ? null : tenth((atMs - zeroMs) / 1000));
  const brewMs = brewTimeMs(brew);
  const about = brewTimeOf(brew);
  const isSure = brewMs !== null || about === null;
  const lastPour = card.steps.findLast((step) => step.targetG !== undefined);
  const cup = order.cups.find(({ cupId }) => cupId === brew.cupId);
  const drawdown = times.find(({ step, status }) => step.kind === 'drawdown' && status === 'done');
  const drainsFromMs = drawdown && drainsFrom(card.method, times, drawdown);
  const sharers = Object.values(state.orders)
    .filter(({ id, cups }) => id !== order.id && cups.some((each) => poursOf(each, brew)))
    .map(({ id, badge, name, takenMs, promisedMs }) => ({
      orderId: id,
      badge,
      guest: name ?? null,
      orderedMs: takenMs,
      promisedMs: promisedMs ?? null,
    }));
  const remade = order.events.findLast(
    (event) => event.type === 'cup-remade' && event.cupId === brew.cupId && event.atMs <= brew.startedMs,
  );
  const whose = handsByStep(brew);
  const freeSince = handsFreeSince(state, brew);
  // A step that ends by the clock needs no tap, and keeps the hands until then.
  const endsBefore = new Map(times.map(({ step }, n) => [step.id, times[n - 1]?.endMs ?? brew.startedMs]));
  const untasted: BrewRecord = {
    brewId: brew.id,
    badge: order.badge,
    orderId: order.id,
    guest: order.name ?? null,
    attempt: 1 + Math.max(0, cup?.attempts.indexOf(brew.id) ?? 0),
    cups: ask.cups ?? 1,
    coffee: ask.coffee,
    roast: ask.roast,
    ageDays: started.roastedOn === undefined ? null : daysBetween(started.roastedOn, brew.startedMs),
    recipeId: ask.recipeId,
    recipeVersion: ask.recipeVersion,
    method: card.method,
    stationId: brew.stationId,
    stationName: brew.stationName,
    // Whoever only tasted the cup or made a note did not brew it.
    by: [
      ...new Set(
        brew.events.flatMap((event) => (event.by === undefined || isRemark(event) ? [] : [event.by])),
      ),
    ],
    outcome: brew.abandoned ? 'abandoned' : 'served',
    reason: brew.abandoned?.reason ?? null,
    cupMl: ask.cupMl,
    plannedDoseG: planned.doseG,
    doseG: brew.doseG ?? card.doseG,
    brewWaterG: card.brewWaterG,
    bypassG: card.bypassG,
    ...(card.addition === 'ice' ? { iceG: card.additionG } : {}),
    lossG: card.lossG,
    ...(isSentBack(state, brew) ? { isSentBack: true as const } : {}),
    filledG: planned.fills.reduce((sum, { g }) => sum + g, 0),
    ratio: card.ratio,
    plannedBeverageG: card.beverageG,
    beverageG: brew.beverageG ?? null,
    waterC: card.waterC,
    water: started.water ?? null,
    grind:
      started.grinderId === undefined || started.grindSetting === undefined
        ? null
        : { grinderId: started.grinderId, setting: started.grindSetting },
    // A step whose end is unknown teaches nothing about its bed.
    drawdownS:
      drawdown && isSure && brew.marks[drawdown.step.id]?.doneMs !== undefined
        ? tenth((drawdown.endMs - (about?.plusMinusMs ?? 0) - drainsFromMs!) / 1000)
        : null,
    handsS: card.handsTimeS,
    notes: (brew.notes ?? []).map(({ note }) => note),
    taste: null,
    yieldPct: null,
    pouredG: (lastPour && brew.marks[lastPour.id]?.readingG) ?? null,
    plannedBrewS: card.brewTimeS,
    windowFromS: card.brewWindowS.from,
    windowToS: card.brewWindowS.to,
    realBrewS: brewMs === null ? null : tenth(brewMs / 1000),
    ...(about && !isSure
      ? { aboutBrewS: { s: tenth(about.ms / 1000), plusMinusS: tenth(about.plusMinusMs / 1000) } }
      : {}),
    zeroMs,
    // For a remade cup, the time counts from when it was sent back.
    orderedMs: remade?.atMs ?? order.takenMs,
    // What is fetched at a time is promised for that time.
    promisedMs: remade ? null : (queue.pickUpMs ?? order.promisedMs ?? null),
    ...(queue.queueId === undefined ? {} : { queueId: queue.queueId }),
    ...(remade || order.expectedMs === undefined ? {} : { expectedMs: order.expectedMs }),
    startedMs: brew.startedMs,
    endedMs,
    steps: times
      .filter(({ status }) => status !== 'skipped')
      .map(({ step, status, startMs, endMs }) => ({
        id: step.id,
        name: step.name,
        kind: step.kind,
        phase: step.phase,
        attended: step.attended,
        by: whose.get(step.id) ?? null,
        plannedS: step.durationS,
        plannedStartS: step.startS,
        realStartS: status === 'done' ? fromZeroS(startMs) : null,
        realEndS: status === 'done' ? fromZeroS(endMs) : null,
        workedS:
          status === 'done'
            ? workedS(brew.marks[step.id], endsBefore.get(step.id)!, freeSince(whose.get(step.id)))
            : null,
        targetG: step.targetG ?? null,
        readingG: brew.marks[step.id]?.readingG ?? null,
        ...readOf(step, brew.marks[step.id]?.readC),
      })),
    ...(sharers.length === 0 ? {} : { sharers }),
    ...(ask.sample ? { sample: { roundId: ask.sample.roundId, letter: ask.sample.letter } } : {}),
  };
  return brew.taste ? tasted(untasted, brew.taste) : untasted;
}

/** What a thermometer said where the card asks for a temperature, against that. */
function readOf({ checkC, waterC }: CardStep, readC: number | undefined) {
  const askedC = checkC ?? (waterC === undefined ? undefined : { from: waterC, to: waterC });
  return readC === undefined || !askedC ? {} : { readC, askedC };
}

/** The record with a new taste and measurement in place of the old ones. */
export function tasted(record: BrewRecord, taste: NonNullable<BrewRecord['taste']>): BrewRecord {
  const { beverageFrom, ...rest } = record;
  const servedG = beverageFrom === 'taste' ? null : rest.beverageG;
  const beverageG = servedG ?? taste.beverageG ?? null;
  const { method, doseG, brewWaterG, plannedBeverageG } = record;
  return {
    ...rest,
    ...(servedG === null && beverageG !== null ? { beverageFrom: 'taste' } : {}),
    beverageG,
    taste,
    yieldPct:
      taste.tdsPct === undefined
        ? null
        : tenth(
            extractionYieldPct(method, taste.tdsPct, {
              doseG,
              brewWaterG,
              beverageG: beverageG ?? plannedBeverageG,
              isIced: record.iceG !== undefined,
            }),
          ),
  };
}

/** Whether a cup of another order shares the brew. */
const poursOf = (cup: CupState, brew: BrewState): boolean =>
  cup.with?.cupId === brew.cupId && cup.status !== 'cancelled';

function handsByStep(brew: BrewState): Map<string, string> {
  const serve = brew.planned.steps.find(({ kind }) => kind === 'serve')?.id;
  return new Map(
    brew.events.flatMap((event) => {
      const stepId =
        event.type === 'step-done' ? event.stepId : event.type === 'brew-served' ? serve : undefined;
      return stepId === undefined || event.by === undefined ? [] : [[stepId, event.by] as const];
    }),
  );
}

/**
 * When this pair of hands finished its last step before a moment. Nobody reports the start of a prep step, but it
 * cannot have begun sooner than that.
 */
function handsFreeSince(state: BarState, brew: BrewState) {
  const taps = everyBrew(state, brew.startedMs - 1)
    .filter(({ startedMs, lastMs }) => startedMs <= brew.lastMs && lastMs >= brew.startedMs - 1)
    .flatMap(({ startedMs, events }) => [
      { atMs: startedMs, by: events[0]?.by },
      ...events
        .filter(({ type }) => type === 'step-done' || type === 'step-begun' || type === 'brew-served')
        .map(({ atMs, by }) => ({ atMs, by })),
    ])
    .filter(({ atMs }) => atMs >= brew.startedMs - 1 && atMs <= brew.lastMs)
    .sort((a, b) => a.atMs - b.atMs);
  return (by: string | undefined) =>
    (beforeMs: number): number | null =>
      taps.findLast((tap) => tap.by === by && tap.atMs < beforeMs)?.atMs ?? null;
}

function workedS(
  mark: BrewState['marks'][string] | undefined,
  previousEndMs: number,
  freeSince: (beforeMs: number) => number | null,
): number | null {
  if (mark?.doneMs === undefined) return null;
  const fromMs = mark.begunMs ?? Math.max(previousEndMs, freeSince(mark.doneMs) ?? previousEndMs);
  return tenth(Math.max(0, mark.doneMs - fromMs) / 1000);
}

const daysBetween = (day: string, atMs: number): number =>
  Math.floor((atMs - Date.parse(`${day}T00:00:00Z`)) / 86_400_000);
/** Avoids the minus zero that rounding can give. */
const tenth = (value: number): number => Math.round(value * 10) / 10 + 0;
