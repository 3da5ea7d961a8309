/**
 * The shapes that server and app share on the live stream. They carry the core's own types, so they are types only.
 */
import type { BarEvent, BarState } from '../brew';
import type { Plan } from '../plan';
import type { Bar } from './bar';

/** A plan as published: for which place in the log it was made, and how often the bar has been planned. */
export type PublishedPlan = {
  version: number;
  seq: number;
  plan: Plan | null;
  unplannable: { cupId: string; reason: string }[];
};

/** `GET /api/state`. */
export type Snapshot = {
  seq: number;
  state: BarState;
  bar: Bar;
  planned: PublishedPlan | null;
  barMs: number;
  rate: number;
};

/** One event of the log, as it is broadcast; its place in the log is the stream's event id. */
export type LiveEvent = { seq: number; event: BarEvent };
