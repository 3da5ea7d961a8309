/**
 * The bench's settings, stored as one JSON value.
 */
import type { EntityManager } from 'typeorm';
import { INITIAL_SETTINGS, type Bar, type BarChange } from '@even-kettle/core/contract';
import { METRIC } from '@even-kettle/core/units';
import { EventRow, FileImportRow, RecipeVersionRow } from './store/rows';
import { readSetting, writeSetting } from './store/settings-table';

const SETTING = 'bar';

/** Three cones and three presses: the bench of an earlier version where nobody had changed it, and one to try and to measure with. */
export const PLAIN_BAR: Bar = {
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
  kettles: [1, 2, 3].map((n) => ({ id: `kettle-${n}`, name: `Kettle ${n}`, powerW: 1200, sizeMl: 1000 })),
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

/** A bar that nobody has set up: nothing stands there that is not theirs. Its first day fills it. */
export const NEW_BAR: Bar = { ...INITIAL_SETTINGS, setUp: { open: true, steps: [] } };

/** @param warn called if the stored settings cannot be read; then the first bench is used */
export async function readBar(
  manager: EntityManager,
  warn: (message: string) => void = () => undefined,
): Promise<Bar> {
  const stored = await readSetting<Partial<Bar>>(manager, SETTING).catch(() => undefined);
  if (stored === undefined)
    warn('The bench’s settings cannot be read. Those of a new bar stand in for them.');
  if (stored) return { ...INITIAL_SETTINGS, ...stored };
  // A bench that nobody had changed was not stored by earlier versions.
  const isUsed =
    (await manager.existsBy(EventRow, {})) ||
    (await manager.existsBy(RecipeVersionRow, {})) ||
    (await manager.existsBy(FileImportRow, {}));
  return isUsed ? PLAIN_BAR : NEW_BAR;
}

/** Stores the bench of a new database, so that it stays one whatever is done first; one of an earlier version keeps its own. */
export async function settleBar(manager: EntityManager): Promise<void> {
  if ((await readSetting(manager, SETTING)) === null) await writeBar(manager, await readBar(manager));
}

export async function writeBar(manager: EntityManager, bar: Bar): Promise<void> {
  await writeSetting(manager, SETTING, bar);
}

/** The bar with some settings changed; the others stay as they were. */
export const changeBar = (bar: Bar, change: BarChange): Bar => ({
  ...bar,
  ...(Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Bar>),
});
