/** Today, as whoever opens, takes over or closes the bar sees it. */
import { screen } from '@testing-library/react-native';
import { EMPTY_BAR, type BarEvent, type BarState } from '@even-kettle/core/brew';
import type { House, Today } from '@even-kettle/core/contract';
import { press } from '../../testing/bar';
import { showLogPage } from '../../testing/log';
import { TodayPage } from './today-page';

jest.mock('expo-router', () => ({
  router: { push: () => undefined, navigate: () => undefined },
}));

const QUIET: Today = {
  rush: { doses: [], cups: 0, weeks: 0 },
  drifts: [],
  changes: [],
  kettles: { litres: 40, descaleAfterL: 200, descaledMs: null },
};
const HOUSE: House = { coffees: [], papers: [], cloths: [] };
const open = (today: Partial<Today> = {}, house: Partial<House> = {}, state: BarState = EMPTY_BAR) =>
  showLogPage(
    <TodayPage />,
    {
      today: () => Promise.resolve({ ...QUIET, ...today }),
      house: () => Promise.resolve({ ...HOUSE, ...house }),
      feed: () => Promise.resolve({ running: false, everyMin: 20, nextBoatMs: null }),
    },
    state,
  );
const typesOf = (acted: BarEvent[]) => acted.map(({ type: what }) => what);

test('a line is ticked off with a tap, says by whom and when, and a second tap takes it back', async () => {
  const { acted } = await open();
  press('Grinders are brushed');
  expect(acted).toMatchObject([{ type: 'task-done', list: 'closing', taskId: 'grinders' }]);
  const done = { ...(acted[0] as Extract<BarEvent, { type: 'task-done' }>), atMs: 5000 };
  const { acted: again } = await open({}, {}, { ...EMPTY_BAR, houseEvents: [done] });
  expect(screen.getByLabelText('Grinders are brushed')).toBeChecked();
  press('Grinders are brushed');
  expect(again).toMatchObject([{ type: 'event-undone', eventId: done.id }]);
});

test('what is expected is got ready by the piece or all at once; stale tins are put back', async () => {
  const doses = [{ coffee: 'Saltmarsh', method: 'cone' as const, doseG: 17.6, brews: 3 }];
  const tins: BarEvent = {
    id: 't',
    type: 'made-ready',
    atMs: 4000,
    thing: 'tins',
    coffee: 'Saltmarsh',
    doseG: 17.6,
    count: 1,
  };
  const { acted } = await open(
    { rush: { doses, cups: 3, weeks: 2 } },
    {},
    { ...EMPTY_BAR, houseEvents: [tins] },
  );
  expect(screen.getByText('About 3 cups, as in the same hours of the 2 weeks before.')).toBeTruthy();
  expect(screen.getByText('1 of 3 ready')).toBeTruthy();
  press('All 2 ready: Saltmarsh, tins of 17.6 g');
  press('One more ready: Filters, Cone');
  expect(acted).toMatchObject([
    { thing: 'tins', coffee: 'Saltmarsh', doseG: 17.6, count: 2 },
    { thing: 'filters', method: 'cone', count: 1 },
  ]);
  const old = { ...tins, atMs: 5000 - 5 * 3600_000 };
  const { acted: later } = await open({}, {}, { ...EMPTY_BAR, houseEvents: [old] });
  press('Put back: Saltmarsh, tins of 17.6 g');
  expect(typesOf(later)).toEqual(['tins-emptied']);
});

test('the handover makes itself: drifts, changes and what is due, each in a line, and is signed with a tap', async () => {
  const { acted } = await open(
    {
      drifts: [{ recipeId: 'cone-thirds', coffee: 'Saltmarsh', byS: 18, sinceMs: 1000 }],
      changes: [{ atMs: 3000, settings: ['menu', 'pairs of hands'] }],
      kettles: { litres: 240, descaleAfterL: 200, descaledMs: null },
    },
    {
      papers: [{ method: 'cone', sheets: 12, perDay: 30 }],
      coffees: [{ name: 'Saltmarsh', stockG: 90, brews: 3, tasted: null }],
    },
  );
  expect(screen.getByText('Saltmarsh, Bloom and three pours: 0:18 slower than before.')).toBeTruthy();
  expect(screen.getByText(/: menu, pairs of hands$/)).toBeTruthy();
  expect(screen.getByText('Papers, Cone: 12 left.')).toBeTruthy();
  expect(screen.getByText('Saltmarsh: 90 g left.')).toBeTruthy();
  // It is due in the handover, and stands at its line of the closing list.
  expect(screen.getAllByText('Descale the kettles: about 240 l of 200 l went through.')).toHaveLength(2);
  expect(screen.getByText('No brew runs and no cup waits.')).toBeTruthy();
  press('I have taken over');
  expect(typesOf(acted)).toEqual(['shift-handed-over']);
});
