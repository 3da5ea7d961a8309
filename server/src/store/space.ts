/**
 * Watches the free space of the database's disk, so that people are warned before it is full.
 */
import { statfs } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { Copies } from '../copies/copies';
import type { StorageState } from '@even-kettle/core/contract';

/** Below the first limit people are warned; below the second nothing more may fit, bytes. */
const LOW_BYTES = 300e6;
const OUT_BYTES = 20e6;
const LOOK_MS = 15_000;

export type SpaceWatch = { now: () => StorageState; look: () => Promise<StorageState>; close: () => void };

/** @param tell called on every change of level, or of the copies, after the first check */
export async function watchSpace(
  databaseFile: string,
  tell: (storage: StorageState) => void,
  freeBytes: (folder: string) => Promise<number> = freeOn,
  copies: Pick<Copies, 'latestMs' | 'isDue'> = { latestMs: () => null, isDue: () => false },
): Promise<SpaceWatch> {
  const folder = dirname(databaseFile);
  let state: StorageState = { level: 'enough', freeMb: null };
  let isFirst = true;
  const look = async () => {
    // If the system cannot say, nobody is warned.
    const bytes = await freeBytes(folder).catch(() => null);
    const was = state;
    state = {
      level: bytes === null || bytes >= LOW_BYTES ? 'enough' : bytes >= OUT_BYTES ? 'low' : 'full',
      freeMb: bytes === null ? null : Math.floor(bytes / 1e6),
      copyMs: copies.latestMs(),
      copyDue: copies.isDue(),
    };
    const isOther = state.level !== was.level || state.copyMs !== was.copyMs || state.copyDue !== was.copyDue;
    if (isOther && !isFirst) tell(state);
    return state;
  };
  await look();
  isFirst = false;
  const looking = setInterval(() => void look(), LOOK_MS);
  looking.unref();
  return { now: () => state, look, close: () => clearInterval(looking) };
}

async function freeOn(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}
