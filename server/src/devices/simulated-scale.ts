/**
 * The simulated scale: weighs a physical model of a hand, a bed and a load cell (`core/pour`), ten readings in a second
 * of bar time.
 */
import {
  SCALE_HZ,
  USUAL_NATURE,
  emptyScale,
  practisedFlow,
  readingOf,
  stepScale,
  tareScale,
  type ScaleModel,
  type ScaleNature,
  type WeightPoint,
} from '@even-kettle/core/pour';
import type { Scale, Time } from './ports';

/** What a practised hand is asked to pour. */
export type PourAsked = Parameters<typeof practisedFlow>[1];

export type SimulatedScale = Scale & {
  /**
   * Puts another brew on it: the weight of what stands there, how its bed drains, and what was poured since the tare (so
   * that a restarted server finds the scale as it was in mid-brew).
   */
  load: (loadG: number, nature: Pick<ScaleNature, 'bed' | 'keepsG'>, pouredG?: number) => void;
  /** A person says that this much was poured: the missing water is added to the scale, grams. */
  poured: (grams: number) => void;
  /** A thumb holds the button on screen: it pours while it is held, and a moment longer. */
  hold: (flowGPerS: number) => void;
  /** What the practised hand pours now; null for nothing. */
  ask: (pour: PourAsked | null) => void;
  /** Simulates a lost connection, seconds of bar time. */
  lose: (forS: number) => void;
};

const TICK_MS = 100;
/** A smaller difference between the reading that was tapped and the weight is the scale's own error, grams. */
const TOLD_SLACK_G = 3;
/** A held thumb repeats its request within this time, so that a lost release cannot pour on, real milliseconds. */
const HOLD_MS = 700;
/** After a pause of the process at most this many readings are computed one by one. */
const MOST_AT_ONCE = 3000;

export function simulatedScale(time: Time, random: () => number): SimulatedScale {
  let model: ScaleModel = emptyScale();
  let nature: ScaleNature = USUAL_NATURE;
  let lastMs = time.nowMs();
  let shownG = 0;
  let held = { flowGPerS: 0, untilRealMs: 0 };
  let asked: PourAsked | null = null;
  let lostUntilMs = 0;
  let lost = false;
  let listeners: Parameters<Scale['listen']>[0] | null = null;

  const wanted = () => {
    if (performance.now() < held.untilRealMs) return held.flowGPerS;
    return asked ? practisedFlow(shownG, asked) : 0;
  };
  const weigh = () => {
    const nowMs = time.nowMs();
    const stepMs = 1000 / SCALE_HZ;
    if (nowMs - lastMs > MOST_AT_ONCE * stepMs) lastMs = nowMs - MOST_AT_ONCE * stepMs;
    const gone = nowMs < lostUntilMs;
    if (gone !== lost) {
      lost = gone;
      listeners?.onConnected(!gone);
    }
    while (lastMs + stepMs <= nowMs) {
      lastMs += stepMs;
      model = stepScale(model, stepMs / 1000, wanted(), nature, random);
      shownG = readingOf(model, nature, random);
      const reading: WeightPoint = { atMs: lastMs, massG: shownG };
      if (!lost) listeners?.onReading(reading);
    }
  };
  const timer = setInterval(weigh, TICK_MS);
  timer.unref();

  return {
    connected: () => !lost,
    tare: () => {
      model = tareScale(model);
      shownG = 0;
    },
    listen: (given) => (listeners = given),
    close: () => clearInterval(timer),
    load: (loadG, bed, pouredG) => {
      nature = { ...USUAL_NATURE, ...bed };
      // A weight that is set down settles at once, because nobody reads the scale while things are put on it.
      const { timeS, tareG, driftG } = model;
      model = { ...emptyScale(loadG), timeS, tareG, driftG };
      if (pouredG === undefined) return;
      model = { ...tareScale(model), pouredG, drainedG: pouredG, cellG: loadG + pouredG };
      shownG = pouredG;
    },
    poured: (grams) => {
      if (model.pouredG >= grams - TOLD_SLACK_G) return;
      const missingG = grams - model.pouredG;
      model = {
        ...model,
        pouredG: grams,
        drainedG: model.drainedG + missingG,
        cellG: model.cellG + missingG,
      };
    },
    hold: (flowGPerS) =>
      (held = { flowGPerS, untilRealMs: performance.now() + (flowGPerS > 0 ? HOLD_MS : 0) }),
    ask: (pour) => {
      // What was not asked before now is not poured before now.
      weigh();
      asked = pour;
    },
    lose: (forS) => (lostUntilMs = time.nowMs() + forS * 1000),
  };
}
