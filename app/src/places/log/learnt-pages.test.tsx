/** What the log teaches, page by page: runs, days, hands, and what is in the house. */
import { screen } from '@testing-library/react-native';
import type { DayPage as Day, HandsLearnt, House } from '@even-kettle/core/contract';
import { press, type } from '../../testing/bar';
import { LEARNT, RECORD, answered, showLogPage } from '../../testing/log';
import { DayPage } from './day-page';
import { HandsPage } from './hands-page';
import { HousePage } from './house-page';
import { RunPage } from './run-page';

const mockParams: Record<string, string> = {};
const mockPushed: unknown[] = [];
jest.mock('expo-router', () => ({
  router: {
    push: (to: unknown) => mockPushed.push(to),
    navigate: () => undefined,
    setParams: () => undefined,
  },
  useLocalSearchParams: () => mockParams,
}));

test('a run that shifted says since when and by how much; what is not known yet says what would teach it', async () => {
  Object.assign(mockParams, { recipeId: 'cone-thirds', coffee: 'Saltmarsh' });
  const run = Array.from({ length: 20 }, (_, n) => ({
    brewId: `b${n}`,
    endedMs: n,
    brewS: n < 15 ? 185 + (n % 3) : 203,
    setting: 18,
  }));
  const chart = {
    fromIndex: 0,
    centreS: 186,
    lowS: 181,
    highS: 191,
    outside: run.map(({ brewS }) => brewS > 191),
    shift: { fromIndex: 15, seenIndex: 18, byS: 17 },
  };
  await showLogPage(<RunPage />, {
    log: () => Promise.resolve({ records: [RECORD], next: null }),
    learnt: () => Promise.resolve({ ...LEARNT, run, chart }),
  });
  expect(screen.getByText(/It has shifted: since brew 16 it takes 17 s longer/)).toBeTruthy();
  expect(screen.getByText('five weighed cups teach it')).toBeTruthy();
  expect(
    screen.getByLabelText('20 brews, the last 3:23, usual from 3:01 to 3:11, shifted since'),
  ).toBeTruthy();
});

test('brews that were left out of what is learnt are named, and lead to their pages', async () => {
  Object.assign(mockParams, { recipeId: 'cone-thirds', coffee: 'Saltmarsh' });
  const run = [1, 2, 3].map((n) => ({
    brewId: `b${n}`,
    endedMs: new Date(2026, 0, n, 9, 5).getTime(),
    brewS: 185,
    setting: 18,
  }));
  const retention = { gPerG: 2.04, plusMinus: 0.06, cups: 9, outliers: ['b2', 'long-gone'] };
  await showLogPage(<RunPage />, {
    log: () => Promise.resolve({ records: [RECORD], next: null }),
    learnt: () => Promise.resolve({ ...LEARNT, run, retention }),
  });
  expect(screen.getByText('from 9 weighed cups')).toBeTruthy();
  press(/^Left out of retention: the brew of .*2.*5/);
  press('Left out of retention: an older brew');
  expect(mockPushed.slice(-2)).toEqual(
    ['b2', 'long-gone'].map((id) => ({ pathname: '/log/[id]', params: { id } })),
  );
});

const DAY: Day = {
  cups: 12,
  orders: 8,
  waitS: { median: 312, p90: 640, longest: 700 },
  late: [{ orderId: 'A', guest: 'pilot', badge: 2, byS: 95, cause: 'waited for hands or a brewer' }],
  queues: [
    { queueId: 'counter', orders: 5, medianWaitS: 300, late: 0 },
    { queueId: 'boat', orders: 3, medianWaitS: 420, late: 1 },
  ],
  handsByMethod: [{ method: 'cone', cups: 12, handsS: 1830 }],
  remade: 1,
  abandoned: [{ reason: 'torn filter', count: 1 }],
  waste: { coffeeG: 17.6, waterG: 285 },
  inWindow: { of: 10, inside: 8 },
  learnt: ['Saltmarsh: 1 step coarser. It took 3:02.'],
};

test('a day is a page of figures; a day with nothing says so; one that does not come can be asked again', async () => {
  await showLogPage(<DayPage />, { day: () => Promise.resolve(DAY) });
  for (const text of ['12', '5:12', '10:40', '80 %', '1 late of 8', 'pilot', '1:35', '30:30'])
    expect(screen.getByText(text)).toBeTruthy();
  expect(screen.getByText('3 orders, median wait 7:00, 1 late')).toBeTruthy();
  expect(screen.getByText('Saltmarsh: 1 step coarser. It took 3:02.')).toBeTruthy();
  await showLogPage(<DayPage />, { day: () => Promise.resolve({ ...DAY, cups: 0, abandoned: [] }) });
  expect(screen.getByText('Nothing was brewed on this day')).toBeTruthy();
  let asked = 0;
  const day = () => ((asked += 1) === 1 ? Promise.reject(new Error('away')) : Promise.resolve(DAY));
  await showLogPage(<DayPage />, { day });
  press('Try again');
  await answered();
  expect(screen.getByText('1 late of 8')).toBeTruthy();
});

const HOUSE: House = {
  coffees: [{ name: 'Slack Tide decaf', stockG: 240, brews: 3, tasted: null }],
  papers: [
    { method: 'cone', sheets: 60, perDay: 27.4 },
    { method: 'flat', sheets: null, perDay: 0 },
  ],
  cloths: [
    {
      id: 'blue',
      name: 'Blue',
      stationName: 'Sock',
      uses: 88,
      lastBoiledMs: null,
      creep: 0.21,
      due: ['replace: runs slow'],
    },
  ],
};

test('coffee is weighed and cloths are boiled from one page; a cloth is only replaced when asked twice; decaf is unmistakable', async () => {
  const { acted } = await showLogPage(<HousePage />, { house: () => Promise.resolve(HOUSE) });
  expect(screen.getByText(/· DECAF/)).toBeTruthy();
  expect(screen.getByText('88 of 90')).toBeTruthy();
  expect(screen.getByText(/drawdown \+21 % on its first week/)).toBeTruthy();
  press('Weigh Slack Tide decaf');
  type('Slack Tide decaf in stock, grams', 'much');
  press('Save');
  expect(acted).toEqual([]);
  type('Slack Tide decaf in stock, grams', '1200');
  press('Save');
  press('Blue was boiled');
  press('Blue was replaced');
  expect(screen.getByText('Order more: for about 2 days, 27.4 a day in the last week')).toBeTruthy();
  press('Count Flat-bottom papers');
  type('Flat-bottom papers in stock', '99.5');
  press('Save');
  type('Flat-bottom papers in stock', '100');
  press('Save');
  expect(acted.map(({ type: what }) => what)).toEqual(['coffee-weighed', 'cloth-boiled', 'papers-counted']);
  expect(acted.at(-1)).toMatchObject({ method: 'flat', sheets: 100 });
  press('A new cloth, counted from 0');
  expect(acted.at(-1)).toMatchObject({ type: 'cloth-replaced', clothId: 'blue' });
});

test('hands show how long they take against the card, whose they are, and from how many steps; before that, what would teach it', async () => {
  const step = { kind: 'weigh' as const, cardS: 12, medianS: 9.6, fromS: 8, toS: 14.2, steps: 34 };
  const hands = (...people: HandsLearnt['people']) => ({ hands: () => Promise.resolve({ people }) });
  await showLogPage(
    <HandsPage />,
    hands({ id: null, steps: [step] }, { id: 'noor', steps: [{ ...step, medianS: 8 }] }),
  );
  expect(screen.getByText('The bar')).toBeTruthy();
  expect(screen.getByText('10 s')).toBeTruthy();
  expect(screen.getAllByText('8 to 14 s, from 34 steps; the card gives 12 s')).toHaveLength(2);
  expect(
    screen.getByLabelText(
      'weigh the beans: 8 s in the middle, eight of ten from 8 to 14.2 s, the card gives 12 s, from 34 steps',
    ),
  ).toBeTruthy();
  await showLogPage(<HandsPage />, hands({ id: null, steps: [] }));
  expect(screen.getByText('Not known yet')).toBeTruthy();
});
