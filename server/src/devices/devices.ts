/**
 * The scales and kettles that the Bench names, each simulated or connected by a bridge.
 */
import type { Server } from 'node:http';
import type { BarEvent } from '@even-kettle/core/brew';
import type { Bar, Devices, KettleOrder, KettleState, ScaleOrder } from '@even-kettle/core/contract';
import type { Gate } from '../access/gate';
import type { AccessPolicy } from '../access/hosts';
import { openBridges } from './bridge';
import { openKettleService } from './kettle-service';
import { openScaleService, type ScaleServiceParts } from './scale-service';
import type { StationScale } from '@even-kettle/core/plan';
import type { Kettle, Scale } from './ports';
import { simulatedKettle, type SimulatedKettle } from './simulated-kettle';
import { simulatedScale, type SimulatedScale } from './simulated-scale';

export type DeviceServices = {
  /** Called when the Bench has changed. */
  follow: (bar: Bar) => void;
  happened: (events: readonly BarEvent[]) => void;
  shown: () => Devices;
  orderScale: (stationId: string, order: ScaleOrder) => boolean;
  orderKettle: (kettleId: string, order: KettleOrder) => boolean;
  /** Accepts connections of bridges. */
  attach: (http: Server, access: AccessPolicy, gate: Gate) => void;
  /** Ends the connections of a bridge whose key was revoked. */
  expel: (callerId: string) => void;
  close: () => void;
};

export type DeviceParts = Omit<ScaleServiceParts, 'bench'> & {
  bar: () => Bar;
  showKettle: (kettle: KettleState) => void;
  random: () => number;
};

type KettleDevice = NonNullable<Bar['kettles'][number]['device']>;
/** A simulated device stands for itself, and is moved by whoever has none. */
const twice = <Device>(device: Device): [Device, Device] => [device, device];

export function openDevices({ bar, showKettle, random, ...parts }: DeviceParts): DeviceServices {
  const { time } = parts;
  const bridges = openBridges(time);
  const scales = openScaleService({ ...parts, bench: bar });
  const kettles = openKettleService(time, parts.state, () => bar().tapC, showKettle);
  /** What stands for each device, so that only what has changed is removed and created again. */
  const standing = new Map<string, string>();

  // What each kind is: the compiler asks for a new one. Null where a person reads it, or nobody does.
  const scaleOf: Record<StationScale, ((id: string) => [Scale, SimulatedScale | null]) | null> = {
    read: null,
    none: null,
    simulated: () => twice(simulatedScale(time, random)),
    bridge: (id) => [bridges.scale(id), null],
  };
  type Nature = Parameters<typeof simulatedKettle>[1];
  type KettleOf = (id: string, nature: Nature) => [Kettle, SimulatedKettle | null];
  const kettleOf: Record<KettleDevice, KettleOf | null> = {
    none: null,
    simulated: (_, nature) => twice(simulatedKettle(time, nature)),
    bridge: (id) => [bridges.kettle(id), null],
  };

  const keep = (key: string, kind: string, place: (() => void) | null, remove: () => void) => {
    const was = standing.get(key);
    if (was === kind) return;
    if (was !== undefined) remove();
    standing.delete(key);
    if (!place) return;
    standing.set(key, kind);
    place();
  };

  const follow = ({ stations, kettles: onBench, roomC }: Bar) => {
    for (const station of stations) {
      const kind = station.scale ?? 'read';
      const open = scaleOf[kind];
      keep(`scale ${station.id}`, kind, open && (() => scales.place(station, ...open(station.id))), () =>
        scales.remove(station.id),
      );
    }
    for (const { id, powerW, coolingPerMin, device: kind = 'none' } of onBench) {
      const open = kettleOf[kind];
      const nature = { powerW, roomC, ...(coolingPerMin === undefined ? {} : { coolingPerMin }) };
      keep(`kettle ${id}`, kind, open && (() => kettles.place(id, ...open(id, nature))), () =>
        kettles.remove(id),
      );
    }
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
    expel: bridges.expel,
    close: () => {
      scales.close();
      kettles.close();
      bridges.close();
    },
  };
}
