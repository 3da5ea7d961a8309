/**
 * The records of finished brews: filtered, searched, charted. A projection of the log.
 */
import { Brackets, type DataSource, type SelectQueryBuilder } from 'typeorm';
import type { BrewRecord, LogPage, LogQuery } from '@even-kettle/core/contract';
import { noteWords, tasteInWords } from '@even-kettle/core/brew';
import { median } from '@even-kettle/core/learn';
import { METHODS } from '@even-kettle/core/recipe';
import { rowsOneByOne } from './by-brew';
import { pausing } from './pausing';
import { failureOf } from './transaction';
import { BrewRecordRow } from './rows';

/** A brew as a point of its recipe's run. */
export type RunPoint = {
  brewId: string;
  endedMs: number;
  brewS: number;
  plannedS: number;
  setting: number | null;
  /** The recipe's version, the grinder if known, and the people, as one text. */
  recipeVersion: number | null;
  grinderId: string | null;
  people: string;
};

export type RecordRepository = {
  page: (query: LogQuery) => Promise<LogPage>;
  one: (brewId: string) => Promise<BrewRecord | null>;
  /** The latest served brews of a recipe with a coffee whose brew time is known, oldest first. */
  run: (recipeId: string, coffee: string, most: number) => Promise<RunPoint[]>;
  /** Whole records, oldest first: the latest of all, of one recipe, or those of a period. */
  latest: (most: number, recipeId?: string) => Promise<BrewRecord[]>;
  between: (fromMs: number, toMs: number) => Promise<BrewRecord[]>;
  /** The records of a station since a time, oldest first, with the fields that a cloth's care needs. */
  atStation: (stationId: string, sinceMs: number) => Promise<{ atMs: number; drawdownS: number | null }[]>;
  /** How many brews of each recipe of a method ended since a time. */
  byRecipe: (method: string, sinceMs: number) => Promise<{ recipeId: string; brews: number }[]>;
  /** What the bar's own brews have had kettles filled with since, grams. */
  filledSince: (sinceMs: number) => Promise<number>;
  /** For a coffee: how much was brewed since a time, and how the latest cups tasted. */
  ofCoffee: (coffee: string, sinceMs: number) => Promise<CoffeeUse>;
};

export type CoffeeUse = {
  brews: number;
  doseG: number;
  tasted: { cups: number; balance: number; strength: number; body: number | null } | null;
};

/** The record of a row; null if the row is damaged. */
export function readRecord(body: string): BrewRecord | null {
  try {
    const record = JSON.parse(body) as BrewRecord | null;
    const isWhole = typeof record?.brewId === 'string' && Number.isFinite(record.endedMs);
    return isWhole && Array.isArray(record.steps) && Array.isArray(record.notes) ? record : null;
  } catch {
    return null;
  }
}

/**
 * @param hidden an import whose brews do not count, because it is incomplete or being removed
 * @param onDamaged called for rows that cannot be read; they are left out
 */
// eslint-disable-next-line max-lines-per-function -- one repository of prepared queries
export function openRecords(
  source: DataSource,
  hidden: () => string | null = () => null,
  onDamaged: () => void = () => undefined,
): RecordRepository {
  // Add conditions with `andWhere`, so that the hidden rows stay hidden.
  const rows = () => {
    const query = source.manager.createQueryBuilder(BrewRecordRow, 'record');
    const importId = hidden();
    return importId === null
      ? query
      : query.where('(record.importId IS NULL OR record.importId <> :importId)', { importId });
  };
  const bodies = async (query: SelectQueryBuilder<BrewRecordRow>) => {
    const found = await query.select('record.body', 'body').getRawMany<{ body: string }>();
    const rest = pausing();
    const read: BrewRecord[] = [];
    for (const { body } of found) {
      const record = readRecord(body);
      if (record) read.push(record);
      await rest();
    }
    if (read.length < found.length) onDamaged();
    return read;
  };

  return {
    page: async (query) => {
      // The ids are found by the indexes alone; bodies are read only for the page.
      const found = await narrowed(rows(), query)
        .select(['record.brewId AS brewId', 'record.endedMs AS endedMs'])
        .orderBy('record.endedMs', 'DESC')
        .addOrderBy('record.brewId', 'ASC')
        .limit(query.limit)
        .getRawMany<{ brewId: string; endedMs: number }>();
      if (found.length === 0) return { records: [], next: null };
      const ids = found.map(({ brewId }) => brewId);
      let unreadable = 0;
      const read = await bodies(rows().andWhere('record.brewId IN (:...ids)', { ids })).catch(
        async (error: unknown) => {
          if (failureOf(error)?.code !== 'damaged') throw error;
          const one = await rowsOneByOne(source.manager, BrewRecordRow, ids, () => (unreadable += 1));
          return one.flatMap(({ body }) => readRecord(body) ?? []);
        },
      );
      const byId = new Map(read.map((record) => [record.brewId, record]));
      const last = found.at(-1)!;
      return {
        records: found.flatMap(({ brewId }) => byId.get(brewId) ?? []),
        next: found.length === query.limit ? `${last.endedMs} ${last.brewId}` : null,
        ...(unreadable > 0 ? { unreadable } : {}),
      };
    },
    one: async (brewId) => {
      const [record] = await bodies(rows().andWhere('record.brewId = :brewId', { brewId }));
      return record ?? null;
    },
    run: async (recipeId, coffee, most) => {
      const found = await rows()
        .andWhere('record.recipeId = :recipeId AND record.coffee = :coffee', { recipeId, coffee })
        .andWhere(`record.outcome = 'served' AND record.brewS IS NOT NULL`)
        // What was changed to compare it says nothing of how the recipe runs.
        .andWhere(`(NOT json_valid(record.body) OR json_extract(record.body, '$.sample') IS NULL)`)
        .select([
          'record.brewId AS brewId',
          'record.endedMs AS endedMs',
          'record.brewS AS brewS',
          'record.plannedS AS plannedS',
          'record.setting AS setting',
          'record.people AS people',
          `CASE WHEN json_valid(record.body) THEN json_extract(record.body, '$.recipeVersion') END AS recipeVersion`,
          `CASE WHEN json_valid(record.body) THEN json_extract(record.body, '$.grind.grinderId') END AS grinderId`,
        ])
        .orderBy('record.endedMs', 'DESC')
        .limit(most)
        .getRawMany<RunPoint>();
      return found.reverse();
    },
    latest: async (most, recipeId) => {
      const query = rows().orderBy('record.endedMs', 'DESC').limit(most);
      if (recipeId !== undefined) query.andWhere('record.recipeId = :recipeId', { recipeId });
      return (await bodies(query)).reverse();
    },
    between: (fromMs, toMs) =>
      bodies(
        rows()
          .andWhere('record.endedMs >= :fromMs AND record.endedMs < :toMs', { fromMs, toMs })
          .orderBy('record.endedMs', 'ASC'),
      ),
    atStation: async (stationId, sinceMs) =>
      rows()
        .andWhere('record.stationId = :stationId AND record.endedMs >= :sinceMs', { stationId, sinceMs })
        .select([
          'record.endedMs AS atMs',
          `CASE WHEN json_valid(record.body) THEN json_extract(record.body, '$.drawdownS') END AS drawdownS`,
        ])
        .orderBy('record.endedMs', 'ASC')
        .limit(1000)
        .getRawMany<{ atMs: number; drawdownS: number | null }>(),
    byRecipe: (method, sinceMs) =>
      rows()
        .andWhere('record.method = :method AND record.endedMs >= :sinceMs', { method, sinceMs })
        .select(['record.recipeId AS recipeId', 'COUNT(*) AS brews'])
        .groupBy('record.recipeId')
        .getRawMany<{ recipeId: string; brews: number }>(),
    filledSince: async (sinceMs) => {
      const filledG = `CASE WHEN json_valid(record.body) THEN json_extract(record.body, '$.filledG') END`;
      const filled = await rows()
        .andWhere('record.endedMs >= :sinceMs AND record.importId IS NULL', { sinceMs })
        .select([`COALESCE(SUM(${filledG}), 0) AS filledG`])
        .getRawOne<{ filledG: number }>();
      return filled?.filledG ?? 0;
    },
    ofCoffee: async (coffee, sinceMs) => {
      const of = () => rows().andWhere('record.coffee = :coffee', { coffee });
      const used = await of()
        .andWhere('record.endedMs >= :sinceMs', { sinceMs })
        .select(['COUNT(*) AS brews', 'COALESCE(SUM(record.doseG), 0) AS doseG'])
        .getRawOne<{ brews: number; doseG: number }>();
      const tasted = await of()
        .andWhere('(record.balance IS NOT NULL OR record.strength IS NOT NULL)')
        .select([
          'record.balance AS balance',
          'record.strength AS strength',
          `json_extract(record.body, '$.taste.body') AS body`,
        ])
        .orderBy('record.endedMs', 'DESC')
        .limit(20)
        .getRawMany<Record<'balance' | 'strength' | 'body', number | null>>();
      const bodies = tasted.flatMap(({ body }) => body ?? []);
      return {
        ...used!,
        tasted:
          tasted.length === 0
            ? null
            : {
                cups: tasted.length,
                balance: median(tasted.map(({ balance }) => balance ?? 0)),
                strength: median(tasted.map(({ strength }) => strength ?? 0)),
                body: bodies.length === 0 ? null : median(bodies),
              },
      };
    },
  };
}

function narrowed(
  query: SelectQueryBuilder<BrewRecordRow>,
  asked: LogQuery,
): SelectQueryBuilder<BrewRecordRow> {
  const equal = (column: keyof BrewRecordRow, value: string | undefined) => {
    if (value !== undefined) query.andWhere(`record.${column} = :${column}`, { [column]: value });
  };
  equal('coffee', asked.coffee);
  equal('method', asked.method);
  equal('recipeId', asked.recipeId);
  equal('stationId', asked.stationId);
  if (asked.person !== undefined)
    query.andWhere('record.people LIKE :person', { person: `% ${asked.person} %` });
  if (asked.taste !== undefined) query.andWhere(TASTE_IS[asked.taste]);
  if (asked.fromMs !== undefined) query.andWhere('record.endedMs >= :fromMs', { fromMs: asked.fromMs });
  if (asked.toMs !== undefined) query.andWhere('record.endedMs < :toMs', { toMs: asked.toMs });
  for (const [index, word] of (asked.search ?? '').toLowerCase().split(/\s+/).filter(Boolean).entries())
    query.andWhere(`record.words LIKE :word${index} ESCAPE '\\'`, {
      [`word${index}`]: `%${word.replace(/[\\%_]/g, '\\$&')}%`,
    });
  if (asked.before !== undefined) {
    const [endedMs = '', ...id] = asked.before.split(' ');
    query.andWhere(
      new Brackets((either) =>
        either
          .where('record.endedMs < :beforeMs', { beforeMs: Number(endedMs) })
          .orWhere('record.endedMs = :beforeMs AND record.brewId > :beforeId', { beforeId: id.join(' ') }),
      ),
    );
  }
  return query;
}

const TASTE_IS: Record<NonNullable<LogQuery['taste']>, string> = {
  sour: 'record.balance < 0',
  balanced: 'record.balance = 0',
  bitter: 'record.balance > 0',
  weak: 'record.strength < 0',
  strong: 'record.strength > 0',
  'not tasted': 'record.balance IS NULL AND record.strength IS NULL',
};

/** @param importId the import that the records came from */
export function rowOfRecord(record: BrewRecord, importId: string | null = null): BrewRecordRow {
  const { brewId, endedMs, coffee, method, recipeId, stationId, by, outcome, taste } = record;
  return {
    brewId,
    endedMs,
    coffee,
    method,
    recipeId,
    stationId,
    people: by.length === 0 ? '' : ` ${by.join(' ')} `,
    outcome,
    balance: taste?.balance ?? null,
    strength: taste?.strength ?? null,
    brewS: record.realBrewS,
    plannedS: record.plannedBrewS,
    setting: record.grind?.setting ?? null,
    doseG: record.doseG,
    importId,
    words: wordsOf(record).toLowerCase(),
    body: JSON.stringify(record),
  };
}

const wordsOf = (record: BrewRecord): string =>
  [
    record.guest,
    record.coffee,
    METHODS[record.method].name,
    record.recipeId.replaceAll('-', ' '),
    record.stationName,
    record.reason,
    ...record.notes.map((note) => noteWords(note, record.method).name),
    record.taste ? tasteInWords(record.taste) : null,
  ]
    .filter((part) => part !== null && part !== '')
    .join(' ');
