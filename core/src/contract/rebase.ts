/**
 * Merges a change of the bench into settings that somebody else has changed since.
 */
import type { Bar, BarChange } from './bar';

type Item = { id: string };

/**
 * The same change on top of the present settings: for a list, item by item, what it added, changed or removed; for a
 * group of settings, each setting separately.
 * @param base the settings that the change was made from
 */
export function rebaseChange(base: Bar, change: BarChange, now: Bar): BarChange {
  return Object.fromEntries(
    Object.entries(change).map(([setting, value]) => {
      const key = setting as keyof BarChange;
      return [setting, rebased(base[key], value, now[key])];
    }),
  ) as BarChange;
}

function rebased(base: unknown, value: unknown, now: unknown): unknown {
  if (isList(base) && isList(value) && isList(now)) return rebasedList(base, value, now);
  if (!isGroup(base) || !isGroup(value) || !isGroup(now)) return value;
  const own = Object.entries(value).filter(([name, inner]) => !isSame(inner, base[name]));
  const kept = Object.fromEntries(Object.entries(now).filter(([name]) => !(name in base) || name in value));
  return { ...kept, ...Object.fromEntries(own) };
}

function rebasedList(base: Item[], value: Item[], now: Item[]): Item[] {
  const before = new Map(base.map((item) => [item.id, item]));
  const changed = new Map(
    value.filter((item) => !isSame(item, before.get(item.id))).map((item) => [item.id, item]),
  );
  const removed = new Set(base.filter(({ id }) => !value.some((item) => item.id === id)).map(({ id }) => id));
  const standing = now
    .filter(({ id }) => !removed.has(id))
    .map((item) => {
      const own = changed.get(item.id);
      return own ? (rebased(before.get(item.id), own, item) as Item) : item;
    });
  const added = [...changed.values()].filter(({ id }) => !now.some((item) => item.id === id));
  return [...standing, ...added];
}

const isList = (value: unknown): value is Item[] =>
  Array.isArray(value) && value.every((item) => isGroup(item) && typeof item['id'] === 'string');
const isGroup = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
