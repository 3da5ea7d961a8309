/**
 * The trace of each brew that was on a scale: few points, stored while the brew goes on.
 */
import type { DataSource, EntityManager } from 'typeorm';
import {
  addReading,
  bytesToTrace,
  emptyTrace,
  tracePoints,
  traceToBytes,
  type TraceWriter,
  type WeightPoint,
} from '@even-kettle/core/pour';
import { BrewTraceRow } from './rows';
import { inTransaction } from './transaction';

export type TraceRepository = {
  add: (brewId: string, reading: WeightPoint) => void;
  /** The trace of a brew; null if it was never on a scale. */
  read: (brewId: string) => Promise<WeightPoint[] | null>;
  /** Stores the points that are new since the last call. */
  flush: () => Promise<void>;
};

/** How many brews' traces stay in memory. */
const HELD = 40;

export function openTraces(
  source: DataSource,
  warn: (detail: unknown, message: string) => void = () => undefined,
): TraceRepository {
  const held = new Map<string, TraceWriter>();
  const changed = new Set<string>();

  const stored = async (manager: EntityManager, brewId: string): Promise<WeightPoint[] | null> => {
    const row = await manager.findOneBy(BrewTraceRow, { brewId });
    if (!row) return null;
    try {
      return bytesToTrace(row.bytes);
    } catch (error) {
      warn({ err: error }, `The weight over ${brewId} cannot be read; the brew is shown without it.`);
      return null;
    }
  };

  return {
    add: (brewId, reading) => {
      const trace = held.get(brewId) ?? emptyTrace();
      held.set(brewId, trace);
      addReading(trace, reading);
      changed.add(brewId);
    },
    read: async (brewId) => {
      const before = (await stored(source.manager, brewId)) ?? [];
      const now = held.get(brewId);
      if (!now) return before.length > 0 ? before : null;
      return joined(before, tracePoints(now));
    },
    flush: async () => {
      for (const brewId of [...changed]) {
        changed.delete(brewId);
        try {
          await inTransaction(source, async (manager) => {
            // A server that was killed in mid-brew continues from what it had stored.
            const points = joined((await stored(manager, brewId)) ?? [], tracePoints(held.get(brewId)!));
            await manager.save(BrewTraceRow, { brewId, bytes: Buffer.from(traceToBytes(points)) });
          });
        } catch (error) {
          // What was not stored now is stored with the next call.
          changed.add(brewId);
          throw error;
        }
      }
      for (const brewId of [...held.keys()].slice(0, Math.max(0, held.size - HELD))) held.delete(brewId);
    },
  };
}

/** The stored points that are earlier than those in memory, followed by those in memory. */
function joined(before: WeightPoint[], now: WeightPoint[]): WeightPoint[] {
  const fromMs = now[0]?.atMs ?? Infinity;
  return [...before.filter(({ atMs }) => atMs < fromMs), ...now];
}
