/**
 * A made-up bar in the middle of a rush, to look at before one's own is set up. It lives in this page alone.
 */
import { lanternPier, shiftUpTo } from '@even-kettle/core/demo';
import { newId, type BarHere } from '../../client/bar-context';
import { openPrivateBar } from '../../client/private-bar';

export function openMadeUpBar(around: BarHere): BarHere {
  const nowMs = around.clock.nowMs();
  const { stations, kettles, ...rest } = lanternPier(nowMs);
  // Nothing is connected to it: what scales and kettles show is read by the person.
  const bar = {
    ...rest,
    stations: stations.map(({ scale: _scale, ...station }) => station),
    kettles: kettles.map(({ device: _device, ...kettle }) => kettle),
  };
  return openPrivateBar(around, { bar, events: shiftUpTo(nowMs, newId, bar).events, startMs: nowMs });
}
