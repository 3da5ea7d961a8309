/**
 * The tables. Every column names its type, because the build does not emit decorator metadata.
 */
import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

/** One event of the append-only log. Rows are never changed nor deleted. */
@Entity('event')
export class EventRow {
  /** Place in the log, from 1, without gaps. */
  @PrimaryGeneratedColumn({ type: 'integer' })
  seq: number;

  @Index('event_id', { unique: true })
  @Column({ type: 'text' })
  id: string;

  @Column({ type: 'text' })
  type: string;

  @Column({ type: 'integer', name: 'at_ms' })
  atMs: number;

  /** Server's own wall clock, for people who look for faults. */
  @Column({ type: 'integer', name: 'received_ms' })
  receivedMs: number;

  /** The event as JSON with its keys sorted, so that the same event is the same text. */
  @Column({ type: 'text' })
  body: string;
}

/** A named piece of the bar's settings, as JSON. */
@Entity('setting')
export class SettingRow {
  @PrimaryColumn({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  body: string;
}

/** A finished brew, for the Log. What was brewed here is made from the log of events and can be rebuilt from it. */
@Entity('brew_record')
export class BrewRecordRow {
  @PrimaryColumn({ type: 'text', name: 'brew_id' })
  brewId: string;

  @Index('brew_record_ended')
  @Column({ type: 'integer', name: 'ended_ms' })
  endedMs: number;

  // What lists are filtered by and charts are drawn from stands in columns; the rest is in the body.
  @Column({ type: 'text' })
  coffee: string;

  @Column({ type: 'text' })
  method: string;

  @Column({ type: 'text', name: 'recipe_id' })
  recipeId: string;

  @Column({ type: 'text', name: 'station_id' })
  stationId: string;

  /** Ids of people, a space before and after each. */
  @Column({ type: 'text' })
  people: string;

  @Column({ type: 'text' })
  outcome: string;

  @Column({ type: 'integer', nullable: true })
  balance: number | null;

  @Column({ type: 'integer', nullable: true })
  strength: number | null;

  /** Seconds from the timer's zero to the end mark, real and as the card expected, and what the grinder stood at. */
  @Column({ type: 'real', name: 'brew_s', nullable: true })
  brewS: number | null;

  @Column({ type: 'real', name: 'planned_s' })
  plannedS: number;

  @Column({ type: 'real', nullable: true })
  setting: number | null;

  @Column({ type: 'real', name: 'dose_g' })
  doseG: number;

  /** The file that it was read in from; null for what was brewed here. */
  @Column({ type: 'text', name: 'import_id', nullable: true })
  importId: string | null;

  /** What is searched, in small letters. */
  @Column({ type: 'text' })
  words: string;

  @Column({ type: 'text' })
  body: string;
}

/** One version of a recipe that was saved on this bar. Rows are never changed nor deleted: a brew keeps its version. */
@Entity('recipe_version')
export class RecipeVersionRow {
  @PrimaryColumn({ type: 'text', name: 'recipe_id' })
  recipeId: string;

  @PrimaryColumn({ type: 'integer' })
  version: number;

  @Column({ type: 'integer', name: 'saved_ms' })
  savedMs: number;

  @Column({ type: 'text' })
  body: string;
}

/** The weight over a brew: points on straight lines, as `traceToBytes` packs them. */
@Entity('brew_trace')
export class BrewTraceRow {
  @PrimaryColumn({ type: 'text', name: 'brew_id' })
  brewId: string;

  @Column({ type: 'blob' })
  bytes: Buffer;
}

/** A log that was read in from a table. Its brews count once it is `kept`; until then, or when it goes, they are hidden. */
@Entity('file_import')
export class FileImportRow {
  @PrimaryColumn({ type: 'text' })
  id: string;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  state: 'coming' | 'kept' | 'going';

  @Column({ type: 'integer' })
  brews: number;

  @Column({ type: 'integer', name: 'at_ms' })
  atMs: number;
}

/** The id of an order (`o …`) or a cup (`c …`) that there has been. */
@Entity('order_name')
export class OrderNameRow {
  @PrimaryColumn({ type: 'text' })
  name: string;
}

/** The state that the log had made up to one of its events. Made from the log; can be let go at any time. */
@Entity('state_snapshot')
export class StateSnapshotRow {
  @PrimaryColumn({ type: 'integer' })
  seq: number;

  /** The rules that made it. */
  @Column({ type: 'text' })
  rules: string;

  @Column({ type: 'text' })
  hash: string;

  @Column({ type: 'text' })
  body: string;
}
