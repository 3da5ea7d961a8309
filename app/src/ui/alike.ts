/**
 * Whether two values are drawn alike: the same, or lists and plain objects whose parts are, so many levels down. What is
 * alike need not be drawn again.
 */
export function isAlike(one: unknown, other: unknown, levels: number): boolean {
  if (Object.is(one, other)) return true;
  if (levels === 0 || !isWhole(one) || !isWhole(other)) return false;
  const keys = Object.keys(one);
  return (
    Array.isArray(one) === Array.isArray(other) &&
    keys.length === Object.keys(other).length &&
    keys.every((key) => key in other && isAlike(one[key], other[key], levels - 1))
  );
}

const isWhole = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;
