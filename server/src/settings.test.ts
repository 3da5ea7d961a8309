/** A database of a version that did not know a setting: the bar has its default, and its own archive is taken in again. */
import { join } from 'node:path';
import { barChangeSchema } from '@even-kettle/core/contract';
import { NEW_BAR, PLAIN_BAR } from './bench';
import { openDatabase } from './store/database';
import { writeSetting } from './store/settings-table';
import {
  buildImportWorker,
  close,
  folder,
  get,
  open,
  openOver,
  restoreInto,
  source,
  textOf,
} from './testing/bar';

beforeAll(buildImportWorker);

const REQUIRED = Object.entries(barChangeSchema.shape).flatMap(([name]) =>
  name in NEW_BAR && name !== 'setUp' ? [name] : [],
);

test('each setting that must be there may be missing in what is stored', async () => {
  expect(REQUIRED).toContain('tasteAfterMin');
  expect(REQUIRED.length).toBeGreaterThan(12);
  for (const name of REQUIRED) {
    const { [name as keyof typeof PLAIN_BAR]: _, ...stored } = PLAIN_BAR;
    await writeSetting(source.manager, 'bar', stored);
    await close();
    await open();
    const state = (await get('/api/state')) as { bar: typeof PLAIN_BAR };
    expect([name, state.bar[name as keyof typeof PLAIN_BAR]]).toEqual([
      name,
      NEW_BAR[name as keyof typeof NEW_BAR],
    ]);
    const other = await openOver(await openDatabase(join(folder, `${name}.sqlite`)));
    await restoreInto(other, await textOf('/api/files/archive.json'));
    expect([name, other.bar()[name as keyof typeof PLAIN_BAR]]).toEqual([
      name,
      NEW_BAR[name as keyof typeof NEW_BAR],
    ]);
    await other.close();
  }
}, 60_000);
