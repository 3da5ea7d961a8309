/**
 * The scales and kettles that the Bench names, each simulated or connected by a bridge.
 */
import type { Server } from 'node:http';
import type { BarEvent } from '@even-kettle/core/brew';
import type { Bar, Devices, KettleOrder, KettleState, ScaleOrder } from '@even-kettle/core/contract';
import type { AccessPolicy } from '../access/hosts';
import { openBridges } from './bridge';
import { openKettleService } from './kettle-service';
import { openScaleService, type ScaleServiceParts } from './scale-service';
import { simulatedKettle } from './simulated-kettle';
import { simulatedScale } from './simulated-scale';

export type DeviceServices = {
  /** Called when the Bench has changed. */
  follow: (bar: Bar) => void;
  happened: (events: readonly BarEvent[]) => void;
  shown: () => Devices;
  orderScale: (stationId: string, order: ScaleOrder) => boolean;
  orderKettle: (kettleId: string, order: KettleOrder) => boolean;
  /** Accepts connections of bridges. */
  attach: (http: Server, access: AccessPolicy) => void;
  close: () => void;
};

export type DeviceParts = Omit<ScaleServiceParts, 'bench'> & {
  bar: () => Bar;
  showKettle: (kettle: KettleState) => void;
  random: () => number;
};

export function openDevices({ bar, showKettle, random, ...parts }: DeviceParts): DeviceServices {
  const { time } = parts;
  const bridges = openBridges(time);
  const scales = openScaleService({ ...parts, bench: bar });
  const kettles = openKettleService(time, parts.state, () => bar().tapC, showKettle);
  /** What stands for each device, so that only what has changed is removed and created again. */
  const standing = new Map<string, string>();

  const keep = (key: string, kind: string, place: () => void, remove: () => void) => {
    const was = standing.get(key);
    if (was === kind) return;
    if (was !== undefined) remove();
    standing.delete(key);
    if (kind === 'read' || kind === 'none') return;
    standing.set(key, kind);
    place();
  };

  const follow = ({ stations, kettles: onBench, roomC }: Bar) => {
    for (const station of stations)
      keep(
        `scale ${station.id}`,
        station.scale ?? 'read',
        () => {
          const standIn = station.scale === 'simulated' ? simulatedScale(time, random) : null;
          scales.place(station, standIn ?? bridges.scale(station.id), standIn);
        },
        () => scales.remove(station.id),
      );
    for (const { id, powerW, coolingPerMin, device } of onBench)
      keep(
        `kettle ${id}`,
        device ?? 'none',
        () => {
          const nature = { powerW, roomC, ...(coolingPerMin === undefined ? {} : { coolingPerMin }) };
          const standIn = device === 'simulated' ? simulatedKettle(time, nature) : null;
          kettles.place(id, standIn ?? bridges.kettle(id), standIn);
        },
        () => kettles.remove(id),
      );
    const named = new Set([
      ...stations.map(({ id }) => `scale ${id}`),
      ...onBench.map(({ id }) => `kettle ${id}`),
    ]);
    for (const key of [...standing.keys()].filter((each) => !named.has(each))) {
      standing.delete(key);
      const [kind, id] = key.split(' ') as [string, string];
      if (kind === 'scale') scales.remove(id);
      else kettles.remove(id);
    }
  };
  follow(bar());

  return {
    follow,
    happened: (events) => {
      for (const event of events) {
        scales.happened(event);
        kettles.happened(event);
      }
    },
    shown: () => ({ scales: scales.shown(), kettles: kettles.shown() }),
    orderScale: scales.order,
    orderKettle: kettles.order,
    attach: bridges.attach,
    close: () => {
      scales.close();
      kettles.close();
      bridges.close();
    },
  };
}
