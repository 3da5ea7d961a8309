/**
 * Rows that are found by their brew's id, page by page; where a page of the file is damaged, the rows around it are still read.
 */
import { In, MoreThan, type EntityManager, type EntityTarget, type FindOptionsWhere } from 'typeorm';
import { failureOf } from './transaction';

/** @param lost told the id of each row that cannot be read, and `after …` where nothing more can be found */
export async function* rowsByBrew<Row extends { brewId: string }>(
  manager: EntityManager,
  table: EntityTarget<Row>,
  where: FindOptionsWhere<Row>,
  atOnce: number,
  lost: (of: string) => void,
): AsyncGenerator<Row[]> {
  const pageAfter = (after: string) => ({
    where: { ...where, brewId: MoreThan(after) } as FindOptionsWhere<Row>,
    order: { brewId: 'ASC' } as never,
    take: atOnce,
  });
  for (let after = ''; ;) {
    let rows: Row[];
    try {
      rows = await manager.find(table, pageAfter(after));
      if (rows.length === 0) return;
      after = rows.at(-1)!.brewId;
    } catch (error) {
      if (failureOf(error)?.code !== 'damaged') throw error;
      // The ids stand in an index of their own.
      const ids = await manager
        .find(table, { ...pageAfter(after), select: { brewId: true } as never })
        .then((found) => found.map(({ brewId }) => brewId))
        .catch(() => null);
      if (ids === null) return lost(`after ${after}`);
      if (ids.length === 0) return;
      rows = await rowsOneByOne(manager, table, ids, lost);
      after = ids.at(-1)!;
    }
    yield rows;
  }
}

/** The rows of brews, read one by one. */
export async function rowsOneByOne<Row extends { brewId: string }>(
  manager: EntityManager,
  table: EntityTarget<Row>,
  ids: readonly string[],
  lost: (of: string) => void,
): Promise<Row[]> {
  const rows: Row[] = [];
  for (const brewId of ids) {
    const [row] = await manager
      .find(table, { where: { brewId: In([brewId]) } as FindOptionsWhere<Row> })
      .catch(() => [undefined]);
    if (row) rows.push(row);
    else lost(brewId);
  }
  return rows;
}
