/**
 * The health of the bar: whether events are stored, whether plans are made, and what is wrong, in words.
 */
import type { DataSource } from 'typeorm';
import type { StorageState } from '@even-kettle/core/contract';
import { GO_BACK } from '../store/cannot-open';
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

/** @param faults the faults that were found in the database's file when it was opened */
export function openHealth(
  source: DataSource,
  faults: readonly string[],
  log: Pick<EventLog, 'seq' | 'damage'>,
  planning: Pick<Planning, 'healthy'>,
  space: Pick<SpaceWatch, 'look'>,
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
      ...(isWritten ? [] : ['The database cannot be written to. Taps wait on their devices until it can.']),
      ...faults
        .slice(0, 1)
        .map(
          (fault) =>
            `The database is damaged (${fault}). What can be read is shown, and nothing is stored. ${GO_BACK}`,
        ),
      ...lost.map(({ seq, reason }) => `Event ${seq} of the log was left out: ${reason}. ${GO_BACK}`),
    ];
  };
  return {
    refused: () => (refusedMs = performance.now()),
    took: () => (refusedMs = -Infinity),
    look: async () => {
      const isWritten = await canWrite();
      const { level } = await space.look();
      const store = isWritten && faults.length === 0 ? 'ok' : 'failing';
      return {
        status: store,
        store,
        planner: planning.healthy() ? 'ok' : 'failing',
        storage: level,
        faults: told(isWritten),
        uptimeS: Math.round(process.uptime()),
        seq: log.seq(),
      };
    },
  };
}
