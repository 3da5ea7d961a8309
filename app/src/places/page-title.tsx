/**
 * The title in the browser's tab: what these hands must do now, or else the place.
 */
import { useEffect } from 'react';
import { usePathname } from 'expo-router';
import { useNow, useUnits } from '../client/bar-context';
import { inShort } from '../words/hands-words';
import { useNextDeed } from './hands-strip';
import { WORDS } from './words';

const APP = WORDS.evenKettle;
const PLACES: readonly [start: string, name: string][] = [
  ['/orders/new', WORDS.newOrder],
  ['/orders', WORDS.orders],
  ['/recipes', WORDS.recipes],
  ['/log', WORDS.log],
  ['/bench', WORDS.bench],
  ['/practice', WORDS.practice],
  ['/station', WORDS.station],
];

const placeAt = (path: string): string => PLACES.find(([start]) => path.startsWith(start))?.[1] ?? WORDS.bar;

/** Draws nothing. */
export function PageTitle() {
  const path = usePathname();
  const units = useUnits();
  const nowMs = useNow(1000, 420);
  const item = useNextDeed(nowMs);
  const due = item && item.dueMs <= nowMs ? inShort(item, units) : null;
  const title = `${due ?? placeAt(path)} · ${APP}`;
  useEffect(() => {
    document.title = title;
  }, [title]);
  return null;
}
