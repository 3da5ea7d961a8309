/**
 * The result of applying an event: the new state, or the reason for a refusal.
 */
import type { BarState } from './state';

export type RefusalCode =
  | 'already-done'
  | 'already-exists'
  | 'cup-not-ready'
  | 'does-not-make-a-cup'
  | 'not-fitting'
  | 'not-undoable'
  | 'out-of-time'
  | 'station-busy'
  | 'step-not-next'
  | 'unknown'
  | 'unknown-recipe';

/** Why an event was refused: the field at fault and, in words, what would be right. */
export type Refusal = { code: RefusalCode; field: string; reason: string };

export type Applied = { ok: true; state: BarState } | { ok: false; refusal: Refusal };

export const accept = (state: BarState): Applied => ({ ok: true, state });

export const refuse = (
  code: RefusalCode,
  field: string,
  reason: string,
): Extract<Applied, { ok: false }> => ({
  ok: false,
  refusal: { code, field, reason },
});

/** An own entry of a record, for a key that came from outside. */
export const ownEntry = <Item>(record: Record<string, Item>, key: string): Item | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;
