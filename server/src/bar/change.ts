/**
 * Which changes of the bench's settings are refused while brews run, and the version of the settings for a change.
 */
import { createHash } from 'node:crypto';
import { badgeOf, brewAt, type BarState } from '@even-kettle/core/brew';
import { NO_SUCH_BREWER, type Bar, type BarChange } from '@even-kettle/core/contract';
import { cardFor, stationOfNoBrewer } from '@even-kettle/core/plan';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { canonical } from '../store/canonical';

/** The reason why a change cannot be made now, in words; null if it can. */
export const whyNotNow = (
  change: BarChange,
  state: BarState,
  book: RecipeBook,
  before: Bar,
  after: Bar,
): string | null => stationInUse(change, state, before) ?? cupsLeftOver(state, book, before, after);

/** A short hash of the settings: it differs when the settings differ. */
export const versionOf = (bar: Bar): string => {
  const known = versions.get(bar) ?? createHash('sha256').update(canonical(bar)).digest('hex').slice(0, 16);
  versions.set(bar, known);
  return known;
};
const versions = new WeakMap<Bar, string>();

/** A station whose brewer neither every bar nor this one knows; null if there is none. */
export function unknownBrewer(bar: Bar): { field: string; reason: string } | null {
  const index = stationOfNoBrewer(bar);
  return index < 0 ? null : { field: `stations.${index}.brewerId`, reason: NO_SUCH_BREWER };
}

/** A station with a brew on it cannot be changed until it is cleaned. */
function stationInUse({ stations }: BarChange, state: BarState, bar: Bar): string | null {
  if (!stations) return null;
  const gone = bar.stations.find(
    ({ id, brewerId }) =>
      brewAt(state, id) && !stations.some((station) => station.id === id && station.brewerId === brewerId),
  );
  return gone ? `${gone.name} has a brew on it; take it off the bench once it is cleaned.` : null;
}

/** Which waiting cups the bench could brew before a change and cannot brew after it; null if there are none. */
function cupsLeftOver(state: BarState, book: RecipeBook, before: Bar, after: Bar): string | null {
  const waiting = Object.values(state.orders).flatMap((order) =>
    order.cups.filter(({ status }) => status === 'waiting').map((cup) => ({ order, cup })),
  );
  const lost = waiting.filter(({ cup }) => cardFor(before, cup, book).ok && !cardFor(after, cup, book).ok);
  if (lost.length === 0) return null;
  const names = lost
    .slice(0, 4)
    .map(({ order, cup }) => `order ${badgeOf(order.badge).letter}, ${cup.coffee}, ${cup.cupMl} ml`);
  const more = lost.length > names.length ? ` and ${lost.length - names.length} more` : '';
  return `A cup that waits could then not be brewed: ${names.join('; ')}${more}. Brew or cancel it first.`;
}
