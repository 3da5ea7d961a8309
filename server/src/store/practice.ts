/**
 * What Practice keeps: tries on the record and pours to follow, an item a row. A row that cannot be read is left out.
 */
import { In, type DataSource } from 'typeorm';
import { PRACTICE_MAX, practiceItemSchema, type PracticeItem } from '@even-kettle/core/contract';
import { PracticeItemRow } from './rows';
import { inTransaction } from './transaction';

/** A page ends with the item that goes over one of these. */
const PAGE_ITEMS = 200;
const PAGE_BYTES = 200_000;

export type PracticePage = { items: PracticeItem[]; next: string | null };

export type PracticeRepository = {
  /** A page, oldest first. @param after the `next` of the page before */
  page: (after?: string) => Promise<PracticePage>;
  /** Keeps an item, or another of the same id in its place. False where no more of its kind can be kept. */
  keep: (item: PracticeItem) => Promise<boolean>;
  /** False where there is none of this id. */
  remove: (id: string) => Promise<boolean>;
};

export const openPractice = (source: DataSource, warn: (message: string) => void): PracticeRepository => ({
  page: async (after = '0 ') => {
    const place = {
      atMs: Number(after.slice(0, after.indexOf(' '))),
      id: after.slice(after.indexOf(' ') + 1),
    };
    const sizes = await source.manager
      .createQueryBuilder(PracticeItemRow, 'item')
      .select(['item.id AS id', 'item.bytes AS bytes'])
      .where('(item.atMs, item.id) > (:atMs, :id)', place)
      .orderBy('item.atMs', 'ASC')
      .addOrderBy('item.id', 'ASC')
      .limit(PAGE_ITEMS + 1)
      .getRawMany<{ id: string; bytes: number }>();
    const page = withinBytes(sizes.slice(0, PAGE_ITEMS)).map(({ id }) => id);
    const rows = await source.manager.find(PracticeItemRow, {
      where: { id: In(page) },
      order: { atMs: 'ASC', id: 'ASC' },
    });
    const items = rows.flatMap(({ id, body }) => {
      const read = practiceItemSchema.safeParse(parsed(body));
      if (!read.success) warn(`The practice item ${id} cannot be read.`);
      return read.success ? [read.data] : [];
    });
    const last = rows.at(-1);
    return { items, next: last && page.length < sizes.length ? `${last.atMs} ${last.id}` : null };
  },
  keep: async (item) =>
    inTransaction(source, async (manager) => {
      const { id, atMs, kind } = item;
      const body = JSON.stringify(item);
      const { items, bytes } = (await manager
        .createQueryBuilder(PracticeItemRow, 'item')
        .select(['COUNT(*) AS items', 'COALESCE(SUM(item.bytes), 0) AS bytes'])
        .where('item.kind = :kind AND item.id <> :id', { kind, id })
        .getRawOne<{ items: number; bytes: number }>())!;
      const most = PRACTICE_MAX[kind];
      if (items >= most.items || bytes + body.length > most.bytes) return false;
      await manager.save(PracticeItemRow, { id, kind, bytes: body.length, atMs, body });
      return true;
    }),
  remove: async (id) =>
    inTransaction(
      source,
      async (manager) => ((await manager.delete(PracticeItemRow, { id })).affected ?? 0) > 0,
    ),
});

/** The first items, up to the one that makes the page full. */
function withinBytes<Item extends { bytes: number }>(items: readonly Item[]): Item[] {
  let bytes = 0;
  const over = items.findIndex((item) => (bytes += item.bytes) > PAGE_BYTES);
  return items.slice(0, over < 0 ? undefined : over + 1);
}

function parsed(body: string): unknown {
  try {
    return JSON.parse(body);
  } catch {
    return null;
  }
}
