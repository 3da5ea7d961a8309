/**
 * The health of the bar: whether events are stored, whether plans are made, and what is wrong, in words.
 */
import type { DataSource } from 'typeorm';
import type { StorageState } from '@even-kettle/core/contract';
import type { Copies } from '../copies/copies';
import type { Planning } from '../planning/planning';
import type { EventLog } from '../store/log';
import { writeSetting } from '../store/settings-table';
import type { SpaceWatch } from '../store/space';
import { inTransaction } from '../store/transaction';

export type Health = {
  status: 'ok' | 'failing';
  store: 'ok' | 'failing';
  planner: 'ok' | 'failing';
  storage: StorageState['level'];
  faults: string[];
  uptimeS: number;
  copyAgeH: number | null;
  seq: number;
};

export type HealthService = {
  /** Reports that the store failed to store a request, or stored one. */
  refused: () => void;
  took: () => void;
  look: () => Promise<Health>;
};

/** The shortest time between two checks whether the disk can be written, milliseconds. */
const TRIED_MS = 1000;
/** How long a request that could not be stored counts as a fault if none is stored after it, milliseconds. */
const REFUSED_MS = 5000;
const DAMAGE_TOLD = 5;

/**
 * @param faults the faults that were found in the database's file when it was opened
 * @param goBack what to do about them
 */
export function openHealth(
  source: DataSource,
  faults: readonly string[],
  goBack: () => string,
  log: Pick<EventLog, 'seq' | 'damage'>,
  planning: Pick<Planning, 'healthy'>,
  space: Pick<SpaceWatch, 'look'>,
  copies: Pick<Copies, 'latestMs' | 'isDue'>,
): HealthService {
  let refusedMs = -Infinity;
  let triedMs = -Infinity;
  let writes = true;
  const canWrite = async () => {
    if (performance.now() - refusedMs < REFUSED_MS) return false;
    if (performance.now() - triedMs < TRIED_MS) return writes;
    writes = await inTransaction(source, (manager) =>
      writeSetting(manager, 'health', { atMs: Date.now() }),
    ).then(
      () => true,
      () => false,
    );
    triedMs = performance.now();
    return writes;
  };
  const told = (isWritten: boolean): string[] => {
    const lost = log.damage().slice(0, DAMAGE_TOLD);
    return [
      ...(copies.isDue()
        ? [
            'There is no good copy of the bar from the last three days. Look at the server’s disk and its log, and make one on the Bench.',
          ]
        : []),
      ...(isWritten ? [] : ['The database cannot be written to. Taps wait on their devices until it can.']),
      ...faults
        .slice(0, 1)
        .map(
          (fault) =>
            `The database is damaged (${fault}). What can be read is shown, and nothing is stored. ${goBack()}`,
        ),
      // The way back is said once.
      ...lost.map(
        ({ seq, reason }, n) =>
          `Event ${seq} of the log was left out: ${reason}.${n === 0 && faults.length === 0 ? ` ${goBack()}` : ''}`,
      ),
    ];
  };
  return {
    refused: () => (refusedMs = performance.now()),
    took: () => (refusedMs = -Infinity),
    look: async () => {
      const isWritten = await canWrite();
      const { level } = await space.look();
      const copyMs = copies.latestMs();
      const store = isWritten && faults.length === 0 ? 'ok' : 'failing';
      return {
        status: store,
        store,
        planner: planning.healthy() ? 'ok' : 'failing',
        storage: level,
        faults: told(isWritten),
        copyAgeH: copyMs === null ? null : Math.floor((Date.now() - copyMs) / 3_600_000),
        uptimeS: Math.round(process.uptime()),
        seq: log.seq(),
      };
    },
  };
}
