/**
 * The simulated kettle: heats and cools by `core/water`.
 */
import {
  emptiedBy,
  filled,
  isHeating,
  kettleAfter,
  type KettleModel,
  type KettleNature,
} from '@even-kettle/core/water';
import type { Kettle, Time } from './ports';

export type SimulatedKettle = Kettle & {
  fill: (toG: number, atC: number) => void;
  pour: (grams: number) => void;
};

const TICK_MS = 250;
/** It never heats above boiling at sea level; higher up the recipe asks for less. */
const MOST_C = 100;

export function simulatedKettle(time: Time, nature: KettleNature): SimulatedKettle {
  let model: KettleModel = { waterC: nature.roomC, levelG: 0, setC: null };
  let lastMs = time.nowMs();
  let listeners: Parameters<Kettle['listen']>[0] | null = null;

  const live = () => {
    const nowMs = time.nowMs();
    model = kettleAfter(model, Math.max(0, nowMs - lastMs) / 1000, nature);
    lastMs = nowMs;
    listeners?.onReading({
      atMs: nowMs,
      waterC: Math.round(model.waterC * 10) / 10,
      levelG: Math.round(model.levelG),
      setC: model.setC,
      heating: isHeating(model),
    });
  };
  const timer = setInterval(live, TICK_MS);
  timer.unref();
  const change = (next: (model: KettleModel) => KettleModel) => {
    live();
    model = next(model);
  };

  return {
    connected: () => true,
    set: (setC) => change((was) => ({ ...was, setC: setC === null ? null : Math.min(MOST_C, setC) })),
    fill: (toG, atC) => change((was) => filled(was, toG, atC)),
    pour: (grams) => change((was) => emptiedBy(was, grams)),
    listen: (given) => (listeners = given),
    close: () => clearInterval(timer),
  };
}
