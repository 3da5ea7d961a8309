/**
 * Where what is learnt comes from.
 */
import type { BarState, ThingEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import type { Recipe } from '@even-kettle/core/recipe';
import type { RecordShelf } from '../store/records';
import type { TraceShelf } from '../store/traces';

export type Sources = {
  records: RecordShelf;
  traces: TraceShelf;
  state: () => BarState;
  bar: () => Bar;
  /** The latest version of a recipe. */
  recipe: (id: string) => Recipe | undefined;
  nowMs: () => number;
};

/** Whole records that the rest is learnt from. */
export const LEARN_FROM = 300;

/** What has been said of the bench's things, oldest first. */
export const thingsOf = <Type extends ThingEvent['type']>(state: BarState, type: Type) =>
  (state.things ?? []).filter((event): event is Extract<ThingEvent, { type: Type }> => event.type === type);

export const tenth = (value: number): number => Math.round(value * 10) / 10;
