/**
 * Reads the scales: the first water starts the clock, the target ends the pour, and all readings of a brew are stored.
 * What it sees becomes events, the same that taps make.
 */
import { v7 as uuid } from 'uuid';
import {
  brewBed,
  pouredG,
  brewAt,
  timelineAt,
  type BarEvent,
  type BarState,
  type BrewState,
} from '@even-kettle/core/brew';
import type { ScaleOrder, ScaleState } from '@even-kettle/core/contract';
import { agenda, byHands, type Bench, type Plan, type Station } from '@even-kettle/core/plan';
import { NO_DRAIN, restingWatch, watchPour, type PourWatch, type WeightPoint } from '@even-kettle/core/pour';
import type { CardStep, RecipeBook } from '@even-kettle/core/recipe';
import type { TraceRepository } from '../store/traces';
import type { Scale, Time } from './ports';
import type { SimulatedScale } from './simulated-scale';

export type ScaleServiceParts = {
  time: Time;
  state: () => BarState;
  bench: () => Bench;
  book: RecipeBook;
  plan: () => Plan | null;
  post: (events: readonly BarEvent[]) => Promise<unknown>;
  traces: TraceRepository;
  warn: (detail: unknown, message: string) => void;
  /** Sends readings to the screens. */
  show: (scale: ScaleState) => void;
};

export type ScaleService = {
  /** Adds a scale at a station. `simulated` is the same scale if it is a simulated one. */
  place: (station: Station, scale: Scale, simulated: SimulatedScale | null) => void;
  remove: (stationId: string) => void;
  /** Called for every event. */
  happened: (event: BarEvent) => void;
  /** False if there is no such scale, or it cannot do that. */
  order: (stationId: string, order: ScaleOrder) => boolean;
  shown: () => ScaleState[];
  close: () => void;
};

/** The weight of brewer and server on a scale, grams. */
const STANDS_G = 540;
/** Screens are told of a change of this many grams, or after this long, real milliseconds. */
const TOLD_G = 0.1;
const TOLD_MS = 1000;
const HAND_MS = 100;
const READING_MAX_G = 3000;
const FLUSH_MS = 4000;

type Placed = {
  scale: Scale;
  simulated: SimulatedScale | null;
  practised: boolean;
  watch: PourWatch;
  /** The last pour that was seen to begin, and the last that was seen to end, as `brew/step`. */
  begun: string | null;
  ended: string | null;
  told: ScaleState;
  toldRealMs: number;
};

// eslint-disable-next-line max-lines-per-function -- what it knows of the scales is shared by its short functions
export function openScaleService(parts: ScaleServiceParts): ScaleService {
  const { time, traces, show } = parts;
  const placed = new Map<string, Placed>();

  const tell = (at: Placed, change: Partial<ScaleState>) => {
    at.told = { ...at.told, ...change };
    at.toldRealMs = performance.now();
    show(at.told);
  };

  function onReading(stationId: string, at: Placed, reading: WeightPoint): void {
    const brew = brewAt(parts.state(), stationId);
    const pour = brew ? pourAhead(brew, reading.atMs) : null;
    const key = brew && pour ? `${brew.id}/${pour.id}` : null;
    const begun = pour !== null && (brew!.marks[pour.id]?.begunMs !== undefined || at.begun === key);
    const asked = key !== null && key !== at.ended ? pour!.targetG! : null;
    const { watch, flowGPerS, seen } = watchPour(at.watch, reading, asked, begun);
    at.watch = watch;
    if (brew && onTheScale(brew)) traces.add(brew.id, reading);
    const whose = () =>
      byHands({ key: key!, brew: brew!, step: pour! }, parts.plan(), 'all', parts.bench().hands);
    if (seen.what === 'begun' && brew && pour) {
      at.begun = key;
      say({
        ...whose(),
        id: uuid(),
        type: 'step-begun',
        brewId: brew.id,
        stepId: pour.id,
        atMs: Math.max(seen.atMs, brew.lastMs),
      });
    }
    if (seen.what === 'ended' && brew && pour) {
      at.ended = key;
      const atMs = Math.max(seen.atMs, brew.lastMs);
      say({
        ...whose(),
        id: uuid(),
        type: 'step-done',
        brewId: brew.id,
        stepId: pour.id,
        atMs,
        // A larger jump is a hand on the scale.
        readingG: Math.min(READING_MAX_G, Math.max(0, seen.readingG)),
      });
    }
    const change = {
      atMs: Math.round(reading.atMs),
      massG: reading.massG,
      flowGPerS: tenth(Math.max(0, flowGPerS)),
    };
    const moved = Math.abs(reading.massG - at.told.massG) >= TOLD_G || change.flowGPerS !== at.told.flowGPerS;
    const sinceMs = performance.now() - at.toldRealMs;
    if (moved ? sinceMs >= HAND_MS : sinceMs >= TOLD_MS) tell(at, change);
  }

  /**
   * What a scale saw may come too late, because somebody tapped first; then it is refused, which is right. If the store
   * fails, the health check reports it, and a person taps the pour.
   */
  const say = (event: BarEvent) =>
    void parts
      .post([{ ...event, atMs: Math.round(event.atMs) }])
      .catch((error: unknown) => parts.warn({ err: error }, 'what a scale saw was not stored'));

  /** The practised hands pour what the hands card asks for, when it asks, and nothing else. */
  function moveHands(): void {
    const practised = [...placed].filter(([, at]) => at.practised && at.simulated);
    if (practised.length === 0) return;
    const nowMs = time.nowMs();
    const bench = parts.bench();
    const items = agenda(parts.state(), bench, parts.book, parts.plan(), nowMs);
    const atHand = items.slice(0, bench.hands);
    for (const [stationId, at] of practised) {
      const item = atHand.find(({ station, brew }) => brew && station.id === stationId);
      const step = item?.step;
      const asks = item && (item.begunMs !== null || (item.dueMs <= nowMs && item.asks !== 'cue'));
      const pours = asks && step?.kind === 'pour' && item.key !== at.ended;
      at.simulated!.ask(
        pours
          ? {
              targetG: step.targetG!,
              flowGPerS: step.flowGPerS!,
              ...(step.opening ? { opening: step.opening } : {}),
            }
          : null,
      );
    }
  }

  const hands = setInterval(moveHands, HAND_MS);
  const flushing = setInterval(
    () =>
      void traces.flush().catch((error: unknown) => parts.warn({ err: error }, 'weights were not stored')),
    FLUSH_MS,
  );
  hands.unref();
  flushing.unref();

  return {
    place: ({ id }, scale, simulated) => {
      const at: Placed = {
        scale,
        simulated,
        practised: false,
        watch: restingWatch(),
        begun: null,
        ended: null,
        told: {
          stationId: id,
          connected: scale.connected(),
          atMs: time.nowMs(),
          massG: 0,
          flowGPerS: 0,
          simulated: simulated !== null,
          practised: false,
        },
        toldRealMs: 0,
      };
      placed.set(id, at);
      const brew = brewAt(parts.state(), id);
      if (brew && simulated) setDown(simulated, brew);
      scale.listen({
        onReading: (reading) => onReading(id, at, reading),
        onConnected: (connected) => {
          at.watch = restingWatch();
          tell(at, { connected });
        },
      });
    },
    remove: (stationId) => {
      placed.get(stationId)?.scale.close();
      placed.delete(stationId);
    },
    happened: (event) => {
      if (event.type === 'event-undone') for (const at of placed.values()) at.begun = at.ended = null;
      if (!('brewId' in event) || event.type === 'cup-remade') return;
      const brew = parts.state().brews[event.brewId];
      const at = brew && placed.get(brew.stationId);
      if (!brew || !at) return;
      if ((event.type === 'brew-started' || event.type === 'brew-moved') && at.simulated)
        setDown(at.simulated, brew);
      // Loaded and tared: later pours read from zero.
      if (event.type === 'step-done' && isLoad(brew, event.stepId)) {
        at.simulated?.load(STANDS_G + brew.card.doseG, bedOf(brew));
        at.scale.tare();
        at.watch = restingWatch();
      }
      // Tapped without pouring on the simulated scale: it shows the reading that was tapped, and continues from there.
      if (
        event.type === 'step-done' &&
        brew.card.steps.some(({ id, targetG }) => id === event.stepId && targetG !== undefined)
      ) {
        at.simulated?.poured(pouredG(brew));
        at.watch = restingWatch();
      }
      if (event.type === 'brew-served') at.simulated?.load(0, { bed: NO_DRAIN, keepsG: 0 });
    },
    order: (stationId, order) => {
      const at = placed.get(stationId);
      if (!at) return false;
      if (order.do === 'tare') {
        at.scale.tare();
        at.watch = restingWatch();
        return true;
      }
      if (!at.simulated) return false;
      if (order.do === 'pour') at.simulated.hold(order.flowGPerS);
      if (order.do === 'lose') at.simulated.lose(order.forS);
      if (order.do === 'practised') {
        at.practised = order.on;
        if (!order.on) at.simulated.ask(null);
        tell(at, { practised: order.on });
      }
      return true;
    },
    shown: () => [...placed.values()].map(({ told }) => told),
    close: () => {
      clearInterval(hands);
      clearInterval(flushing);
      for (const { scale } of placed.values()) scale.close();
    },
  };
}

/** The pour that a scale would see next: all steps before it are done, and it is not. */
function pourAhead(brew: BrewState, nowMs: number): CardStep | null {
  if (brew.status !== 'running') return null;
  for (const { step, status } of timelineAt(brew, nowMs)) {
    if (status === 'done' || status === 'skipped') continue;
    if (step.targetG !== undefined) return step;
    // A swirl or a rest may still run when the pour begins; every other step must be over.
    if (step.end !== 'clock') return null;
  }
  return null;
}

/** Whether a brew is between taring and hand-over. */
const onTheScale = (brew: BrewState): boolean =>
  brew.status === 'running' &&
  brew.card.steps.some((step) => step.kind === 'load' && brew.marks[step.id]?.doneMs !== undefined);

/** Sets a simulated scale to the state of the brew on it: loaded, tared and poured into, or not yet. */
function setDown(simulated: SimulatedScale, brew: BrewState): void {
  if (onTheScale(brew)) simulated.load(STANDS_G + brew.card.doseG, bedOf(brew), pouredG(brew));
  else simulated.load(STANDS_G, bedOf(brew));
}

const isLoad = (brew: BrewState, stepId: string): boolean =>
  brew.card.steps.some((step) => step.id === stepId && step.kind === 'load');

const bedOf = (brew: BrewState) => ({ bed: brewBed(brew), keepsG: brew.card.retainedG });

const tenth = (value: number): number => Math.round(value * 10) / 10;
