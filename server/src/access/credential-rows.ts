/** The tables of who may come in. They are in a file of their own, so that no copy of the bar holds them and none brings back what was revoked. */
import 'reflect-metadata';
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import type BetterSqlite3 from 'better-sqlite3';
import {
  Column,
  DataSource,
  Entity,
  PrimaryColumn,
  type MigrationInterface,
  type QueryRunner,
} from 'typeorm';
import type { DeviceRole, Role } from '@even-kettle/core/contract/roles';

/** A paired device, or a program with a key. Times are real milliseconds since 1970. */
@Entity('credential')
export class CredentialRow {
  @PrimaryColumn({ type: 'text' })
  id: string;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  role: Role;

  @Column({ type: 'text', nullable: true })
  person: string | null;

  /** SHA-256 of the token. The token itself is on the device alone. */
  @Column({ type: 'text' })
  hash: string;

  /** When the token was made. */
  @Column({ type: 'integer', name: 'token_ms' })
  tokenMs: number;

  /** A new token that was sent, and has not been used yet. */
  @Column({ type: 'text', name: 'next_hash', nullable: true })
  nextHash: string | null;

  @Column({ type: 'integer', name: 'made_ms' })
  madeMs: number;

  @Column({ type: 'integer', name: 'seen_ms', nullable: true })
  seenMs: number | null;

  @Column({ type: 'integer', name: 'revoked_ms', nullable: true })
  revokedMs: number | null;
}

/** Somebody may pair one device, by a link or a code, until a time. */
@Entity('invitation')
export class InvitationRow {
  @PrimaryColumn({ type: 'text', name: 'link_hash' })
  linkHash: string;

  @Column({ type: 'text', name: 'code_hash', nullable: true })
  codeHash: string | null;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  role: DeviceRole;

  @Column({ type: 'text', nullable: true })
  person: string | null;

  @Column({ type: 'integer', name: 'until_ms' })
  untilMs: number;
}

class FirstAccess1766000000000 implements MigrationInterface {
  name = 'FirstAccess1766000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "credential" (
      "id" text PRIMARY KEY NOT NULL, "name" text NOT NULL, "role" text NOT NULL, "person" text,
      "hash" text NOT NULL, "token_ms" integer NOT NULL, "next_hash" text,
      "made_ms" integer NOT NULL, "seen_ms" integer, "revoked_ms" integer)`);
    await runner.query(`CREATE TABLE "invitation" (
      "link_hash" text PRIMARY KEY NOT NULL, "code_hash" text, "name" text NOT NULL, "role" text NOT NULL,
      "person" text, "until_ms" integer NOT NULL)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['invitation', 'credential']) await runner.query(`DROP TABLE "${table}"`);
  }
}

export async function openAccessDatabase(file: string): Promise<DataSource> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const source = new DataSource({
    type: 'better-sqlite3',
    database: file,
    entities: [CredentialRow, InvitationRow],
    migrations: [FirstAccess1766000000000],
    migrationsRun: true,
    synchronize: false,
    prepareDatabase: (db: BetterSqlite3.Database) => {
      // The command that makes a new link for the lead writes here beside the server.
      db.pragma('busy_timeout = 3000');
      db.pragma('journal_mode = WAL');
      db.pragma('synchronous = FULL');
    },
  });
  return source.initialize();
}
