/**
 * The interfaces of a scale and a kettle. A simulated one of each ships; a bridge connects real ones; another kind of
 * device is one more implementation.
 */
import type { WeightPoint } from '@even-kettle/core/pour';

export type Stop = () => void;

export type Scale = {
  /** False while it cannot be heard. */
  connected: () => boolean;
  tare: () => void;
  /** Readings in bar time, and changes of `connected`. */
  listen: (listeners: {
    onReading: (reading: WeightPoint) => void;
    onConnected: (connected: boolean) => void;
  }) => void;
  close: Stop;
};

export type KettleReading = {
  atMs: number;
  waterC: number;
  levelG: number | null;
  setC: number | null;
  heating: boolean;
};

export type Kettle = {
  connected: () => boolean;
  /** Heats to a temperature, degrees Celsius; null switches off. */
  set: (setC: number | null) => void;
  listen: (listeners: {
    onReading: (reading: KettleReading) => void;
    onConnected: (connected: boolean) => void;
  }) => void;
  close: Stop;
};

/** Bar time and its rate. */
export type Time = { nowMs: () => number; rate: number };
