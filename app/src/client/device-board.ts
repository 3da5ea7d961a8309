/**
 * What scales and kettles show. Kept apart from the bar's view: readings come ten times a second, and only what shows
 * them is drawn anew.
 */
import type { Devices, KettleState, ScaleState } from '@even-kettle/core/contract';

export type DeviceReadings = {
  scale: (stationId: string) => ScaleState | undefined;
  kettles: () => KettleState[];
  subscribe: (listener: () => void) => () => void;
  tookAll: (devices: Devices) => void;
  tookScale: (scale: ScaleState) => void;
  tookKettle: (kettle: KettleState) => void;
  /** The server is away, and what it passed on with it. */
  lost: () => void;
};

export function openDeviceReadings(): DeviceReadings {
  let scales = new Map<string, ScaleState>();
  let kettles: KettleState[] = [];
  const listeners = new Set<() => void>();
  const tell = () => {
    for (const listener of listeners) listener();
  };
  return {
    scale: (stationId) => scales.get(stationId),
    kettles: () => kettles,
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    tookAll: (devices) => {
      scales = new Map(devices.scales.map((scale) => [scale.stationId, scale]));
      kettles = devices.kettles;
      tell();
    },
    tookScale: (scale) => {
      scales.set(scale.stationId, scale);
      tell();
    },
    tookKettle: (kettle) => {
      kettles = kettles.map((each) => (each.kettleId === kettle.kettleId ? kettle : each));
      tell();
    },
    lost: () => {
      if (scales.size === 0 && kettles.length === 0) return;
      scales = new Map();
      kettles = [];
      tell();
    },
  };
}
