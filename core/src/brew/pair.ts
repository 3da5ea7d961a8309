/**
 * A pair of hands on the bar, numbered from 0 as plan files number them; the first is shown to people as "Hands 1".
 */
export type Pair = 0 | 1;

export const PAIRS: readonly Pair[] = [0, 1];

export const isPair = (value: unknown): value is Pair => value === 0 || value === 1;
