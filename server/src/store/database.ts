/**
 * The database: one SQLite file, opened through TypeORM, its tables made and changed by migrations only.
 */
import 'reflect-metadata';
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import type BetterSqlite3 from 'better-sqlite3';
import { DataSource } from 'typeorm';
import {
  FirstTables1764000000000,
  LogAndTraces1764300000000,
  LogsFromFiles1764400000000,
  PeopleAndTraces1764200000000,
  RecipesAndBench1764100000000,
} from './migrations';
import { BrewRecordRow, BrewTraceRow, EventRow, FileImportRow, RecipeVersionRow, SettingRow } from './rows';

/**
 * Opens (or makes) the database and brings its tables up to date.
 * @param keptStatements how many prepared statements stay in memory; few where each writes hundreds of rows
 */
export async function openDatabase(file: string, keptStatements = 100): Promise<DataSource> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const source = new DataSource({
    type: 'better-sqlite3',
    database: file,
    statementCacheSize: keptStatements,
    entities: [EventRow, SettingRow, BrewRecordRow, RecipeVersionRow, BrewTraceRow, FileImportRow],
    migrations: [
      FirstTables1764000000000,
      RecipesAndBench1764100000000,
      PeopleAndTraces1764200000000,
      LogAndTraces1764300000000,
      LogsFromFiles1764400000000,
    ],
    migrationsRun: true,
    synchronize: false,
    prepareDatabase: (db: BetterSqlite3.Database) => {
      // FULL: an acknowledged event survives a power cut, not only a killed server.
      db.pragma('journal_mode = WAL');
      db.pragma('synchronous = FULL');
      db.pragma('foreign_keys = ON');
      db.pragma('busy_timeout = 3000');
    },
  });
  return source.initialize();
}
