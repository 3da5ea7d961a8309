import type { MigrationInterface, QueryRunner } from 'typeorm';

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
    // The log is append-only; the database itself refuses anything else.
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
