/**
 * The bench's settings, stored as one JSON value. The first ones are Lantern Pier's.
 */
import type { EntityManager } from 'typeorm';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import { METRIC } from '@even-kettle/core/units';
import { readSetting, writeSetting } from './store/settings-table';

const SETTING = 'bar';

/** The first bench: three cones and three presses. */
export const FIRST_BAR: Bar = {
  name: 'Brew bar',
  altitudeM: 0,
  units: METRIC,
  hands: 1,
  grinders: [
    {
      id: 'grinder-1',
      name: 'Grinder',
      points: [
        { band: 10, setting: 34 },
        { band: 50, setting: 18 },
        { band: 96, setting: 3 },
      ],
    },
  ],
  kettles: [
    { id: 'kettle-1', name: 'Kettle 1', powerW: 1200, sizeMl: 1000 },
    { id: 'kettle-2', name: 'Kettle 2', powerW: 1200, sizeMl: 1000 },
    { id: 'kettle-3', name: 'Kettle 3', powerW: 1200, sizeMl: 1000 },
  ],
  tapC: 90,
  burners: 1,
  roomC: 21,
  water: { name: 'Filtered tap' },
  stations: [
    { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' },
    { id: 'cone-2', name: 'Cone 2', brewerId: 'cone-m' },
    { id: 'cone-3', name: 'Cone 3', brewerId: 'cone-m' },
    { id: 'press-1', name: 'Press 1', brewerId: 'press-350' },
    { id: 'press-2', name: 'Press 2', brewerId: 'press-350' },
    { id: 'press-3', name: 'Press 3', brewerId: 'press-1l' },
  ],
  people: [],
  cloths: [],
  tasteAfterMin: 7,
  coffees: [{ id: 'house', name: 'House coffee', roast: 'medium', notes: '', decaf: false }],
};

/** @param warn called if the stored settings cannot be read; then the first bench is used */
export async function readBar(
  manager: EntityManager,
  warn: (message: string) => void = () => undefined,
): Promise<Bar> {
  const stored = await readSetting<Bar>(manager, SETTING).catch(() => undefined);
  if (stored === undefined)
    warn('The bench’s settings cannot be read. Those of a new bar stand in for them.');
  return stored ?? FIRST_BAR;
}

export async function writeBar(manager: EntityManager, bar: Bar): Promise<void> {
  await writeSetting(manager, SETTING, bar);
}

/** The bar with some settings changed; the others stay as they were. */
export const changeBar = (bar: Bar, change: BarChange): Bar => ({
  ...bar,
  ...(Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Bar>),
});
