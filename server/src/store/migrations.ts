import type { MigrationInterface, QueryRunner } from 'typeorm';
import { traceToBytes } from '@even-kettle/core/pour';

/**
 * Drawdowns count from the end of the last pour: the records of this bar's own brews are made anew from the log as it opens. None is
 * deleted first, since a damaged log may not give it again.
 */
export class DrawdownFromLastPour1765000000000 implements MigrationInterface {
  name = 'DrawdownFromLastPour1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `INSERT OR REPLACE INTO "setting" ("name", "body") VALUES ('records-outdated', 'true')`,
    );
  }

  async down(): Promise<void> {
    // What an older version needs of a record is still in it.
  }
}

/** What Practice keeps, counted by kind. */
export class PracticeKinds1764900000000 implements MigrationInterface {
  name = 'PracticeKinds1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "practice_item" ADD COLUMN "kind" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "practice_item" ADD COLUMN "bytes" integer NOT NULL DEFAULT 0`);
    await runner.query(
      `UPDATE "practice_item" SET "bytes" = LENGTH("body"), "kind" = CASE WHEN json_valid("body") THEN COALESCE(json_extract("body", '$.kind'), '') ELSE '' END`,
    );
    await runner.query(`CREATE INDEX "practice_item_kind" ON "practice_item" ("kind", "bytes")`);
    await runner.query(`CREATE INDEX "practice_item_at" ON "practice_item" ("at_ms", "id", "bytes")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const index of ['kind', 'at']) await runner.query(`DROP INDEX "practice_item_${index}"`);
    for (const column of ['kind', 'bytes'])
      await runner.query(`ALTER TABLE "practice_item" DROP COLUMN "${column}"`);
  }
}

/** Records that name a guest, found without reading the others. */
export class RecordsWithGuests1764800000000 implements MigrationInterface {
  name = 'RecordsWithGuests1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE INDEX "brew_record_guests" ON "brew_record" ("ended_ms", "brew_id") WHERE instr("body", '"guest":"') > 0`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "brew_record_guests"`);
  }
}

/** What Practice keeps, apart from the log. */
export class PracticeItems1764700000000 implements MigrationInterface {
  name = 'PracticeItems1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "practice_item" ("id" text PRIMARY KEY NOT NULL, "at_ms" integer NOT NULL, "body" text NOT NULL)`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "practice_item"`);
  }
}

/** Guests' names and words can be forgotten; nothing else of an event can be changed. */
export class ForgottenGuests1764600000000 implements MigrationInterface {
  name = 'ForgottenGuests1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "event" ADD COLUMN "forgotten_ms" integer`);
    await runner.query(
      `CREATE INDEX "event_guests" ON "event" ("type", "at_ms") WHERE "forgotten_ms" IS NULL AND "type" IN ('order-taken', 'order-renamed', 'cup-added', 'cup-changed', 'cups-moved')`,
    );
    await runner.query(`DROP TRIGGER "event_kept"`);
    await runner.query(
      `CREATE TRIGGER "event_kept" BEFORE UPDATE ON "event"
       WHEN OLD."forgotten_ms" IS NOT NULL OR NEW."forgotten_ms" IS NULL
         OR NEW."seq" <> OLD."seq" OR NEW."id" <> OLD."id" OR NEW."type" <> OLD."type"
         OR NEW."at_ms" <> OLD."at_ms" OR NEW."received_ms" <> OLD."received_ms"
       BEGIN SELECT RAISE(ABORT, 'events are never changed'); END`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TRIGGER "event_kept"`);
    await runner.query(`DROP INDEX "event_guests"`);
    await runner.query(`ALTER TABLE "event" DROP COLUMN "forgotten_ms"`);
    await runner.query(
      `CREATE TRIGGER "event_kept" BEFORE UPDATE ON "event" BEGIN SELECT RAISE(ABORT, 'events are never changed'); END`,
    );
  }
}

/** The ids of all orders, and snapshots of the state. */
export class NamesAndSnapshots1764500000000 implements MigrationInterface {
  name = 'NamesAndSnapshots1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "order_name" ("name" text PRIMARY KEY NOT NULL) WITHOUT ROWID`);
    await runner.query(
      `INSERT OR IGNORE INTO "order_name" SELECT 'o ' || json_extract("body", '$.orderId') FROM "event" WHERE "type" = 'order-taken' AND json_valid("body")`,
    );
    await runner.query(
      `INSERT OR IGNORE INTO "order_name" SELECT 'c ' || json_extract("cup"."value", '$.cupId') FROM "event", json_each("event"."body", '$.cups') AS "cup" WHERE "event"."type" = 'order-taken' AND json_valid("event"."body")`,
    );
    await runner.query(`CREATE TABLE "state_snapshot" (
      "seq" integer PRIMARY KEY NOT NULL,
      "rules" text NOT NULL,
      "hash" text NOT NULL,
      "body" text NOT NULL)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['state_snapshot', 'order_name']) await runner.query(`DROP TABLE "${table}"`);
  }
}

/** Imported logs, beside the brews that were made here. */
export class LogsFromFiles1764400000000 implements MigrationInterface {
  name = 'LogsFromFiles1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "file_import" (
      "id" text PRIMARY KEY NOT NULL,
      "name" text NOT NULL,
      "state" text NOT NULL,
      "brews" integer NOT NULL,
      "at_ms" integer NOT NULL)`);
    await runner.query(`ALTER TABLE "brew_record" ADD COLUMN "import_id" text`);
    await runner.query(
      `CREATE INDEX "brew_record_import" ON "brew_record" ("import_id") WHERE "import_id" IS NOT NULL`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "brew_record_import"`);
    await runner.query(`DELETE FROM "brew_record" WHERE "import_id" IS NOT NULL`);
    await runner.query(`ALTER TABLE "brew_record" DROP COLUMN "import_id"`);
    await runner.query(`DROP TABLE "file_import"`);
  }
}

/** Records that can be filtered, searched and charted; traces in few bytes. Records are rebuilt from the log. */
export class LogAndTraces1764300000000 implements MigrationInterface {
  name = 'LogAndTraces1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "brew_record"`);
    await runner.query(`CREATE TABLE "brew_record" (
      "brew_id" text PRIMARY KEY NOT NULL,
      "ended_ms" integer NOT NULL,
      "coffee" text NOT NULL,
      "method" text NOT NULL,
      "recipe_id" text NOT NULL,
      "station_id" text NOT NULL,
      "people" text NOT NULL,
      "outcome" text NOT NULL,
      "balance" integer,
      "strength" integer,
      "brew_s" real,
      "planned_s" real NOT NULL,
      "setting" real,
      "dose_g" real NOT NULL,
      "words" text NOT NULL,
      "body" text NOT NULL)`);
    await runner.query(`CREATE INDEX "brew_record_ended" ON "brew_record" ("ended_ms")`);
    for (const column of ['method', 'recipe_id', 'station_id'])
      await runner.query(`CREATE INDEX "brew_record_${column}" ON "brew_record" ("${column}", "ended_ms")`);
    await runner.query(
      `CREATE INDEX "brew_record_coffee" ON "brew_record" ("coffee", "ended_ms", "dose_g", "balance", "strength")`,
    );
    // A search reads only this index, never the bodies.
    await runner.query(
      `CREATE INDEX "brew_record_words" ON "brew_record" ("ended_ms", "words", "people", "balance", "strength", "brew_id")`,
    );
    await runner.query(
      `CREATE INDEX "brew_record_run" ON "brew_record" ("recipe_id", "coffee", "ended_ms", "outcome", "brew_s")`,
    );
    await runner.query(
      `UPDATE "setting" SET "body" = json_set("body", '$.cloths', json('[]'), '$.tasteAfterMin', 7) WHERE "name" = 'bar'`,
    );
    const traces = (await runner.query(`SELECT "brew_id", "body" FROM "brew_trace"`)) as {
      brew_id: string;
      body: string;
    }[];
    await runner.query(`DROP TABLE "brew_trace"`);
    await runner.query(
      `CREATE TABLE "brew_trace" ("brew_id" text PRIMARY KEY NOT NULL, "bytes" blob NOT NULL)`,
    );
    for (const { brew_id, body } of traces) {
      const points = (JSON.parse(body) as [number, number][]).map(([atMs, massG]) => ({ atMs, massG }));
      await runner.query(`INSERT INTO "brew_trace" VALUES (?, ?)`, [
        brew_id,
        Buffer.from(traceToBytes(points)),
      ]);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['brew_record', 'brew_trace']) await runner.query(`DROP TABLE "${table}"`);
    await runner.query(
      `CREATE TABLE "brew_record" ("brew_id" text PRIMARY KEY NOT NULL, "ended_ms" integer NOT NULL, "body" text NOT NULL)`,
    );
    await runner.query(
      `CREATE TABLE "brew_trace" ("brew_id" text PRIMARY KEY NOT NULL, "body" text NOT NULL)`,
    );
  }
}

/** People on the bench, and the trace of each brew that was on a scale. */
export class PeopleAndTraces1764200000000 implements MigrationInterface {
  name = 'PeopleAndTraces1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "brew_trace" ("brew_id" text PRIMARY KEY NOT NULL, "body" text NOT NULL)`,
    );
    await runner.query(
      `UPDATE "setting" SET "body" = json_set("body", '$.people', json('[]')) WHERE "name" = 'bar' AND json_type("body", '$.people') IS NULL`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "brew_trace"`);
  }
}

type OldBar = { grinders: number; kettles: number; kettle: { powerW: number; filledAtC: number } };

/** Recipes that are saved on the bar; grinders and kettles with names instead of counts. */
export class RecipesAndBench1764100000000 implements MigrationInterface {
  name = 'RecipesAndBench1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "recipe_version" (
      "recipe_id" text NOT NULL,
      "version" integer NOT NULL,
      "saved_ms" integer NOT NULL,
      "body" text NOT NULL,
      PRIMARY KEY ("recipe_id", "version"))`);
    await runner.query(
      `CREATE TRIGGER "recipe_kept" BEFORE UPDATE ON "recipe_version" BEGIN SELECT RAISE(ABORT, 'versions are never changed'); END`,
    );
    await runner.query(
      `CREATE TRIGGER "recipe_stays" BEFORE DELETE ON "recipe_version" BEGIN SELECT RAISE(ABORT, 'versions are never deleted'); END`,
    );
    const [stored] = (await runner.query(`SELECT "body" FROM "setting" WHERE "name" = 'bar'`)) as {
      body: string;
    }[];
    if (!stored) return;
    const { kettle, ...bar } = JSON.parse(stored.body) as OldBar;
    const count = (many: number) => Array.from({ length: many }, (_, index) => index + 1);
    const body = JSON.stringify({
      ...bar,
      roomC: 21,
      tapC: kettle.filledAtC,
      burners: 1,
      water: { name: 'Tap' },
      grinders: count(bar.grinders).map((n) => ({
        id: `grinder-${n}`,
        name: `Grinder ${n}`,
        points: [
          { band: 20, setting: 30 },
          { band: 80, setting: 6 },
        ],
      })),
      kettles: count(bar.kettles).map((n) => ({
        id: `kettle-${n}`,
        name: `Kettle ${n}`,
        powerW: kettle.powerW,
        sizeMl: 1000,
      })),
    });
    await runner.query(`UPDATE "setting" SET "body" = ? WHERE "name" = 'bar'`, [body]);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "recipe_version"`);
  }
}

/** The first tables: the log, the settings, the records of finished brews. */
export class FirstTables1764000000000 implements MigrationInterface {
  name = 'FirstTables1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "event" (
      "seq" integer PRIMARY KEY AUTOINCREMENT NOT NULL,
      "id" text NOT NULL,
      "type" text NOT NULL,
      "at_ms" integer NOT NULL,
      "received_ms" integer NOT NULL,
      "body" text NOT NULL)`);
    await runner.query(`CREATE UNIQUE INDEX "event_id" ON "event" ("id")`);
    // The log is append-only; triggers in the database refuse every change.
    await runner.query(
      `CREATE TRIGGER "event_kept" BEFORE UPDATE ON "event" BEGIN SELECT RAISE(ABORT, 'events are never changed'); END`,
    );
    await runner.query(
      `CREATE TRIGGER "event_stays" BEFORE DELETE ON "event" BEGIN SELECT RAISE(ABORT, 'events are never deleted'); END`,
    );
    await runner.query(`CREATE TABLE "setting" ("name" text PRIMARY KEY NOT NULL, "body" text NOT NULL)`);
    await runner.query(`CREATE TABLE "brew_record" (
      "brew_id" text PRIMARY KEY NOT NULL,
      "ended_ms" integer NOT NULL,
      "body" text NOT NULL)`);
    await runner.query(`CREATE INDEX "brew_record_ended" ON "brew_record" ("ended_ms")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['brew_record', 'setting', 'event']) await runner.query(`DROP TABLE "${table}"`);
  }
}
