/** A rush drill that is lived second by second on a real private bar, by somebody who taps. */
import { EMPTY_BAR } from '@even-kettle/core/brew';
import { agenda, forHands, tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { rushHappenings, type RushLevel, type Surprise } from '@even-kettle/core/practice';
import { openPrivateBar } from '../client/private-bar';
import { OWN, openRushShift } from '../places/practice/rush-shift';
import { TEST_BAR, barHere, viewOf } from './bar';

/** Hands are what is scarce: three cones, three kettles. */
export const RUSH_BENCH = {
  ...TEST_BAR,
  stations: ['1', '2', '3'].map((n) => ({ id: `cone-${n}`, name: `Cone ${n}`, brewerId: 'cone-m' })),
  kettles: ['1', '2', '3'].map((n) => ({ id: `k${n}`, name: `Kettle ${n}`, powerW: 1200, sizeMl: 1200 })),
};
const START_MS = 1_000_000;
const MENU = [
  { recipeId: 'cone-thirds', recipeVersion: 2, coffee: 'Saltmarsh', roast: 'light' as const, cupMl: 250 },
];

type Doing = (item: AgendaItem, sees: boolean, nowMs: number) => boolean;
/** As the card asks: what is waited for when it is seen, what takes time when its time is over. */
export const BY_THE_CARD: Doing = (item, sees, nowMs) =>
  item.asks === 'cue'
    ? sees
    : item.asks !== 'runs' &&
      nowMs >= Math.max(item.dueMs, item.fromMs) + (item.asks === 'start' ? 0 : item.step.durationS * 1000);

export function lived(
  level: RushLevel,
  {
    hands = 1,
    surprises = [],
    doing = BY_THE_CARD,
  }: { hands?: 1 | 2; surprises?: Surprise[]; doing?: Doing } = {},
) {
  let realMs = 0;
  const settings = { ...RUSH_BENCH, hands };
  const { here } = barHere({ view: viewOf({ bar: settings, state: EMPTY_BAR }) });
  const bar = openPrivateBar(here, { bar: settings, events: [], startMs: START_MS }, () => realMs);
  const { book } = bar.store.view();
  let ids = 0;
  const newId = () => `drill-${(ids += 1)}`;
  const happenings = rushHappenings({
    level,
    surprises,
    bench: settings,
    book,
    menu: MENU,
    startMs: START_MS,
    seed: 3,
    newId,
  });
  const shift = openRushShift({ bar, happenings, surprises, hands, seed: 3 });
  let isOver = false;
  for (let second = 0; second < 3600 && !isOver; second += 1) {
    realMs += 1000;
    isOver = shift.turn();
    const nowMs = bar.clock.nowMs();
    const { state, plan } = bar.store.view();
    const all = agenda(state, settings, book, plan, nowMs);
    const item = (hands === 1 ? all : forHands(all, plan, OWN))[0];
    const sees = shift.sights().some(({ key }) => key === item?.key);
    if (item && doing(item, sees, nowMs)) shift.bar.store.act(tapEvents(item, settings, nowMs, newId));
  }
  const nowMs = bar.clock.nowMs();
  return {
    shift,
    isOver,
    state: bar.store.view().state,
    bar: settings,
    book,
    asked: { level, surprises },
    nowMs,
    orders: happenings.flatMap((each) => ('order' in each ? [each.order] : [])),
  };
}
