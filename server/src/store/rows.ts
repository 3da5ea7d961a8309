/**
 * The tables. Every column names its type, because the build does not emit decorator metadata.
 */
import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

/** One event of the append-only log. Rows are never deleted, and only their guests' names and words are ever taken out. */
@Entity('event')
export class EventRow {
  /** The event's number in the log: from 1, without gaps. */
  @PrimaryGeneratedColumn({ type: 'integer' })
  seq: number;

  @Index('event_id', { unique: true })
  @Column({ type: 'text' })
  id: string;

  @Column({ type: 'text' })
  type: string;

  @Column({ type: 'integer', name: 'at_ms' })
  atMs: number;

  /** The server's own wall clock, for people who look for faults. */
  @Column({ type: 'integer', name: 'received_ms' })
  receivedMs: number;

  /** The event as JSON with sorted keys, so that equal events give equal text. */
  @Column({ type: 'text' })
  body: string;

  /** When the guest's name and words were taken out of the body, by the server's wall clock. */
  @Column({ type: 'integer', name: 'forgotten_ms', nullable: true })
  forgottenMs?: number | null;
}

/** One of the bar's settings, as JSON. */
@Entity('setting')
export class SettingRow {
  @PrimaryColumn({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  body: string;
}

/** A finished brew, for the Log. The record of a brew that was made here can be rebuilt from the log of events. */
@Entity('brew_record')
export class BrewRecordRow {
  @PrimaryColumn({ type: 'text', name: 'brew_id' })
  brewId: string;

  @Index('brew_record_ended')
  @Column({ type: 'integer', name: 'ended_ms' })
  endedMs: number;

  // Values that lists are filtered by and charts are drawn from have columns of their own; the rest is in the body.
  @Column({ type: 'text' })
  coffee: string;

  @Column({ type: 'text' })
  method: string;

  @Column({ type: 'text', name: 'recipe_id' })
  recipeId: string;

  @Column({ type: 'text', name: 'station_id' })
  stationId: string;

  /** Ids of people, each with a space before and after it. */
  @Column({ type: 'text' })
  people: string;

  @Column({ type: 'text' })
  outcome: string;

  @Column({ type: 'integer', nullable: true })
  balance: number | null;

  @Column({ type: 'integer', nullable: true })
  strength: number | null;

  /** Seconds from the timer's zero to the end mark, measured and expected, and the grinder's setting. */
  @Column({ type: 'real', name: 'brew_s', nullable: true })
  brewS: number | null;

  @Column({ type: 'real', name: 'planned_s' })
  plannedS: number;

  @Column({ type: 'real', nullable: true })
  setting: number | null;

  @Column({ type: 'real', name: 'dose_g' })
  doseG: number;

  /** The import that the record came from; null for a brew that was made here. */
  @Column({ type: 'text', name: 'import_id', nullable: true })
  importId: string | null;

  /** The text for searches, in lower case. */
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

/** The trace of a brew: points joined by straight lines, packed by `traceToBytes`. */
@Entity('brew_trace')
export class BrewTraceRow {
  @PrimaryColumn({ type: 'text', name: 'brew_id' })
  brewId: string;

  @Column({ type: 'blob' })
  bytes: Buffer;
}

/** An imported log. Its brews count while it is `kept`; before that, and while it is removed, they are hidden. */
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

/** Something that Practice keeps; see `practiceItemSchema`. */
@Entity('practice_item')
export class PracticeItemRow {
  @PrimaryColumn({ type: 'text' })
  id: string;

  @Column({ type: 'text' })
  kind: string;

  /** The length of the body. */
  @Column({ type: 'integer' })
  bytes: number;

  @Column({ type: 'integer', name: 'at_ms' })
  atMs: number;

  @Column({ type: 'text' })
  body: string;
}

/** The id of an order (`o …`) or a cup (`c …`). */
@Entity('order_name')
export class OrderNameRow {
  @PrimaryColumn({ type: 'text' })
  name: string;
}

/** The state after one of the log's events. It is made from the log and can be deleted at any time. */
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
