/**
 * What a cup tasted like, and what was seen of its bed; entered once the cup has cooled.
 */
export const SEEN = [
  'wall',
  'sloped',
  'muddy',
  'clumps',
  'lively-bloom',
  'no-bloom',
  'stall',
  'even',
] as const;
export type Seen = (typeof SEEN)[number];

/** A notch either way is clear, two are strong. */
export type Notch = -2 | -1 | 0 | 1 | 2;

export type Taste = {
  /** From sour (-2) to bitter (2), and from weak (-2) to strong (2). */
  balance?: Notch;
  strength?: Notch;
  /** From light (-2) to heavy (2): how it fills the mouth, whatever its strength. */
  body?: Notch;
  /** Words that the bar has chosen for its own cups. */
  own?: string[];
  seen?: Seen[];
  words?: string;
  /** Dissolved solids, per cent, where they were measured. */
  tdsPct?: number;
  /** What was weighed in the server, grams. */
  beverageG?: number;
};

/** The tastes that the Log can be filtered by. */
export const TASTES = ['sour', 'balanced', 'bitter', 'weak', 'strong', 'not tasted'] as const;

export const SEEN_WORDS: Record<Seen, string> = {
  wall: 'grounds on the wall',
  sloped: 'bed sloped',
  muddy: 'bed muddy',
  clumps: 'dry clumps',
  'lively-bloom': 'lively bloom',
  'no-bloom': 'no bloom',
  stall: 'it stalled',
  even: 'bed even',
};

export const BALANCE_WORDS = ['very sour', 'sour', 'balanced', 'bitter', 'very bitter'] as const;
export const STRENGTH_WORDS = ['very weak', 'weak', 'right', 'strong', 'very strong'] as const;

export const BODY_WORDS = ['very light', 'light', 'medium', 'heavy', 'very heavy'] as const;
/** So many words of its own a bar can have. */
export const OWN_TASTE_WORDS = 3;

/** In a few words, "bitter, weak; dry clumps"; empty if nothing was entered. */
export function tasteInWords({ balance, strength, body, own = [], seen = [], words }: Taste): string {
  const said = [
    balance === undefined ? null : BALANCE_WORDS[balance + 2],
    strength === undefined ? null : strength === 0 ? 'right strength' : STRENGTH_WORDS[strength + 2],
    body === undefined ? null : `${BODY_WORDS[body + 2]} body`,
    ...own,
  ].filter((each) => each !== null);
  return [said.join(', '), seen.map((each) => SEEN_WORDS[each]).join(', '), words ?? '']
    .filter((part) => part !== '')
    .join('; ');
}
