/**
 * Badges tie the cups of one order together across stations, rail and list: a letter in a ring whose stroke is solid,
 * dashed, dotted or double.
 */
export const STROKES = ['solid', 'dashed', 'dotted', 'double'] as const;
export type RingStroke = (typeof STROKES)[number];
export type Badge = { letter: string; stroke: RingStroke };

const LETTERS = 26;

/** The badge with a number: A solid, B dashed, C dotted, D double, E solid ... ; from the 27th on with a second letter. */
export function badgeOf(badge: number): Badge {
  const letter = String.fromCharCode(65 + (badge % LETTERS));
  const round = Math.floor(badge / LETTERS);
  return {
    letter: round === 0 ? letter : `${letter}${String.fromCharCode(64 + round)}`,
    stroke: STROKES[badge % 4]!,
  };
}

/**
 * The badge after the latest order's; it goes round the alphabet and skips badges that are in use.
 * @param stroke only badges with this ring, for a queue that has its own
 */
export function nextBadge(lastBadge: number, inUse: ReadonlySet<number>, stroke?: RingStroke): number {
  const isFree = (badge: number) =>
    !inUse.has(badge) && (stroke === undefined || badgeOf(badge).stroke === stroke);
  for (let step = 1; step <= LETTERS; step += 1) {
    const badge = (lastBadge + step) % LETTERS;
    if (isFree(badge)) return badge;
  }
  let badge = LETTERS;
  while (!isFree(badge)) badge += 1;
  return badge;
}
