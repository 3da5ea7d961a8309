/**
 * Copies of the database: their guests are forgotten with those of the bar.
 */
import { existsSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { EMPTY_BAR } from '@even-kettle/core/brew';
import { openDatabase } from '../store/database';
import { forgetGuestsInLog, forgetGuestsInRecords } from '../store/guests';
import { StateSnapshotRow } from '../store/rows';
import { emptied } from '../store/vacuum';
import { inTransaction } from '../store/transaction';

/** @param failed told of a copy that cannot be opened: one of an earlier version, say, which stays as it is */
export async function forgetGuestsInCopies(
  folder: string,
  beforeMs: number,
  failed: (copy: string, error: unknown) => void,
): Promise<void> {
  if (!existsSync(folder)) return;
  for (const name of await readdir(folder))
    if (name.endsWith('.sqlite'))
      await forgetGuestsInCopy(join(folder, name), beforeMs).catch((error: unknown) => failed(name, error));
}

async function forgetGuestsInCopy(file: string, beforeMs: number): Promise<void> {
  // A copy stays of the version that made it.
  const source = await openDatabase(file, { migrates: false, keptStatements: 10 });
  try {
    const write = <Result>(work: Parameters<typeof inTransaction<Result>>[1]) => inTransaction(source, work);
    const { forgotten, kept } = await forgetGuestsInLog(write, beforeMs, EMPTY_BAR);
    await forgetGuestsInRecords(write, beforeMs, kept);
    // It is made from the log again.
    if (forgotten > 0) await write((manager) => manager.clear(StateSnapshotRow));
    await emptied(source);
  } finally {
    await source.destroy();
  }
}
