/**
 * How the bar is: whether what is written stays written, whether plans come, and what is wrong, in words.
 */
import type { DataSource } from 'typeorm';
import type { StorageState } from '@even-kettle/core/contract';
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
  /** The store did not take a post, or took one. */
  refused: () => void;
  took: () => void;
  look: () => Promise<Health>;
};

export const GO_BACK =
  'Stop the server, keep the damaged file, put the latest copy that `npm run backup` made in its place, and start again.';
/** It is not tried more often whether the disk takes what is written, milliseconds. */
const TRIED_MS = 1000;
/** A post that the store did not take speaks against its health for so long, if none is taken meanwhile, milliseconds. */
const REFUSED_MS = 5000;
const DAMAGE_TOLD = 5;

/** @param faults what is wrong with the database's file, as it was opened */
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
