/**
 * What Practice keeps: tries on the record and pours to follow, an item a row. A row that cannot be read is left out.
 */
import type { DataSource } from 'typeorm';
import type { PracticeItem } from '@even-kettle/core/contract';
import { practiceItemSchema } from '@even-kettle/core/contract';
import { PracticeItemRow } from './rows';
import { inTransaction } from './transaction';

/** The most items that a bar keeps: years of practice. */
const ITEMS_MAX = 20_000;

export type PracticeRepository = {
  /** Oldest first. */
  all: () => Promise<PracticeItem[]>;
  /** Keeps an item, or another of the same id in its place. False where no more can be kept. */
  keep: (item: PracticeItem) => Promise<boolean>;
  /** False where there is none of this id. */
  remove: (id: string) => Promise<boolean>;
};

export const openPractice = (source: DataSource, warn: (message: string) => void): PracticeRepository => ({
  all: async () => {
    const rows = await source.manager.find(PracticeItemRow, { order: { atMs: 'ASC', id: 'ASC' } });
    return rows.flatMap(({ id, body }) => {
      const read = practiceItemSchema.safeParse(parsed(body));
      if (!read.success) warn(`The practice item ${id} cannot be read.`);
      return read.success ? [read.data] : [];
    });
  },
  keep: async (item) =>
    inTransaction(source, async (manager) => {
      const known = await manager.existsBy(PracticeItemRow, { id: item.id });
      if (!known && (await manager.count(PracticeItemRow)) >= ITEMS_MAX) return false;
      await manager.save(PracticeItemRow, { id: item.id, atMs: item.atMs, body: JSON.stringify(item) });
      return true;
    }),
  remove: async (id) =>
    inTransaction(
      source,
      async (manager) => ((await manager.delete(PracticeItemRow, { id })).affected ?? 0) > 0,
    ),
});

function parsed(body: string): unknown {
  try {
    return JSON.parse(body);
  } catch {
    return null;
  }
}
