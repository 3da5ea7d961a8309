/** The Log's pages: what is told goes into the log, what is advised can be taken up, what is wrong is said. */
import { act, screen } from '@testing-library/react-native';
import { QueryClient, QueryClientProvider, notifyManager } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { EMPTY_BAR, type BarEvent, type BarState } from '@even-kettle/core/brew';
import type {
  BrewPage as Page,
  BrewRecord,
  DayPage as Day,
  HandsLearnt,
  House,
  ImportJob,
  Imports,
  Learnt,
} from '@even-kettle/core/contract';
import type { Api, LogAsked } from '../../client/api';
import { Refused } from '../../client/request';
import type { BarView } from '../../client/store';
import { TEST_BAR, choose, press, showPage, type, viewOf } from '../../testing/bar';
import { AdviceCard } from './advice-card';
import { Brewed, verdict } from './brewed';
import { DayPage } from './day-page';
import { Filters } from './filters';
import { HandsPage } from './hands-page';
import { HousePage } from './house-page';
import { LargeFileCard } from './large-file';
import { LogPlace } from './log-place';
import { RoundPage } from './round-page';
import { RunPage } from './run-page';
import { TasteForm } from './taste-form';
import { cooledBrews } from './to-taste';
import { Weights } from './weights';

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

const RECORD: BrewRecord = {
  brewId: 'a1.1',
  badge: 2,
  orderId: 'A',
  guest: 'pilot',
  attempt: 1,
  cups: 1,
  coffee: 'Saltmarsh',
  roast: 'light',
  ageDays: 9,
  recipeId: 'cone-thirds',
  recipeVersion: 1,
  method: 'cone',
  stationId: 'cone-1',
  stationName: 'Cone 1',
  by: [],
  outcome: 'served',
  reason: null,
  cupMl: 250,
  plannedDoseG: 17.6,
  doseG: 17.6,
  brewWaterG: 285,
  bypassG: 0,
  lossG: 0,
  ratio: 16.2,
  plannedBeverageG: 250,
  beverageG: null,
  waterC: 95,
  water: 'Tap',
  grind: { grinderId: 'g', setting: 18 },
  drawdownS: 60,
  handsS: 150,
  notes: [],
  taste: null,
  yieldPct: null,
  pouredG: 285,
  plannedBrewS: 187,
  windowFromS: 170,
  windowToS: 205,
  realBrewS: 222,
  zeroMs: 1000,
  orderedMs: 0,
  promisedMs: null,
  startedMs: 500,
  endedMs: 4000,
  steps: [],
};
const LEARNT: Learnt = {
  recipeId: 'cone-thirds',
  coffee: 'Saltmarsh',
  run: [],
  chart: null,
  grind: null,
  retention: null,
  drawdown: null,
  tried: [],
};

/** Answers come within the `act` that waits for them. */
notifyManager.setScheduler((notify) => notify());
const answered = () => act(async () => void (await new Promise((resolve) => setTimeout(resolve, 5))));

async function show(
  page: ReactNode,
  api: Partial<Api> = {},
  state: BarState = EMPTY_BAR,
  link: BarView['link'] = 'live',
) {
  const client = new QueryClient({
    defaultOptions: { queries: { gcTime: Infinity, retry: false }, mutations: { gcTime: Infinity } },
  });
  const shown = showPage(<QueryClientProvider client={client}>{page}</QueryClientProvider>, {
    view: viewOf({ state, link }),
    api: { learnt: () => Promise.resolve(LEARNT), ...api },
  });
  await answered();
  return shown;
}

test('while the server is away the Log says so, on its list and on its pages', async () => {
  const log = () => Promise.resolve({ records: [RECORD], next: null });
  await show(<LogPlace />, { log }, EMPTY_BAR, 'away');
  expect(screen.getByTestId('log-away')).toHaveTextContent(
    /^The server is away\. What is shown was read before/,
  );
  await show(<HandsPage />, { hands: () => Promise.reject(new Error('away')) }, EMPTY_BAR, 'away');
  expect(screen.getByTestId('log-away')).toBeTruthy();
  expect(screen.getByText('How long hands take could not load')).toBeTruthy();
  await show(<LogPlace />, { log });
  expect(screen.queryByTestId('log-away')).toBeNull();
});

test('a taste is told in two taps and a chip; a TDS that cannot be is said at once and keeps nothing', async () => {
  const { acted } = await show(<TasteForm record={RECORD} />);
  press('Save');
  press('bitter');
  press('right');
  press('dry clumps');
  type('TDS, %', '140');
  expect(screen.getByText(/TDS is a per cent from 0.1 to 25/)).toBeTruthy();
  press('Save');
  expect(acted).toEqual([]);
  type('TDS, %', '1.42');
  type('In your words', '  walnut ');
  press('Save');
  expect(acted).toEqual([
    expect.objectContaining({
      type: 'cup-tasted',
      brewId: 'a1.1',
      taste: { balance: 1, strength: 0, seen: ['clumps'], words: 'walnut', tdsPct: 1.42 },
    }),
  ]);
});

test('the log is narrowed to days: the last is in it, each can be left open, and a range the wrong way round is said', async () => {
  const asks: LogAsked[] = [];
  function Narrowed() {
    const [asked, setAsked] = useState<LogAsked>({ search: 'fog' });
    asks.push(asked);
    return <Filters asked={asked} typed="" onType={() => undefined} onAsk={setAsked} />;
  }
  await show(<Narrowed />);
  press('Filter');
  choose('From the day', '2026-11-20');
  choose('To the day', '2026-11-20');
  const { fromMs, toMs } = asks.at(-1)!;
  expect([fromMs, toMs].map(Number)).toEqual([
    new Date(2026, 10, 20).getTime(),
    new Date(2026, 10, 21).getTime(),
  ]);
  expect(screen.getByLabelText('To the day').props.value).toBe('2026-11-20');
  expect(screen.queryByRole('alert')).toBeNull();
  choose('From the day', '2026-11-22');
  expect(screen.getByRole('alert')).toHaveTextContent(/^The first day is after the last/);
  choose('To the day', '');
  expect(screen.queryByRole('alert')).toBeNull();
  choose('Taste', 'bitter');
  expect(screen.getByLabelText('Filter · 2')).toBeTruthy();
  press('Any');
  expect(asks.at(-1)).toEqual({ search: 'fog' });
});

test('up to three brews are laid over one, numbered as they were chosen; each can be taken away, and none twice', async () => {
  const others = [185, 190, 195, 200].map((realBrewS, n) => ({
    ...RECORD,
    brewId: `other-${n + 1}`,
    realBrewS,
    endedMs: 1000 * n,
  }));
  const told = { ...others[0]!, brewId: 'no-zero', zeroMs: null };
  const asked: string[] = [];
  await show(
    <Weights
      record={RECORD}
      trace={[
        { atMs: 1000, massG: 0 },
        { atMs: 8000, massG: 42 },
      ]}
    />,
    {
      log: () => Promise.resolve({ records: [RECORD, told, ...others], next: null }),
      brew: (id) => {
        asked.push(id);
        const record = others.find(({ brewId }) => brewId === id)!;
        return Promise.resolve({
          record,
          trace: [
            { atMs: 1000, massG: 0 },
            { atMs: 9000, massG: 50 },
          ],
          advice: null,
        });
      },
    },
  );
  const chart = () => String(screen.getByLabelText(/^Water over time/).props['aria-label']);
  expect(chart()).toMatch(/weighed 42 g, ended at 3:42$/);
  for (const n of [2, 4, 1]) {
    choose('Lay another over it', `other-${n}`);
    await answered();
  }
  expect(asked).toEqual(['other-2', 'other-4', 'other-1']);
  expect(chart()).toMatch(/, 1 ended at 3:10, 2 ended at 3:20, 3 ended at 3:05$/);
  expect(screen.queryByLabelText('Lay another over it')).toBeNull();
  press(/^Take away 2: /);
  expect(chart()).toMatch(/, 1 ended at 3:10, 2 ended at 3:05$/);
  // What lies over it already, itself, and what has no timer are not offered.
  const options = screen.getByLabelText('Lay another over it').props.children as {
    props: { value: string };
  }[];
  expect(options.map(({ props }) => props.value)).toEqual(['', 'other-3', 'other-4']);
});

const COARSER: Extract<NonNullable<Page['advice']>, { kind: 'change' }> = {
  kind: 'change',
  words: '1.5 steps coarser: about 3:05 ± 0:12, from 9 brews',
  change: { what: 'grind', stepsCoarser: 1.5, expect: { brewS: 185, plusMinusS: 12 } },
  because: ['3:42 is 17 s over its window.'],
};

test('advice is taken up in one command, with the words that were read and whose hands it was', async () => {
  const asked: unknown[] = [];
  const takeAdvice: Api['takeAdvice'] = (brewId, what) => (
    asked.push([brewId, what]),
    Promise.resolve(TEST_BAR)
  );
  const { acted } = await show(<AdviceCard record={RECORD} advice={COARSER} />, { takeAdvice });
  expect(screen.getByText(COARSER.words)).toBeTruthy();
  expect(screen.getByText('3:42 is 17 s over its window.')).toBeTruthy();
  press('Set Grinder so');
  await answered();
  expect(asked).toEqual([['a1.1', { id: expect.any(String), atMs: 5000, words: COARSER.words }]]);
  const ratio: NonNullable<Page['advice']> = {
    kind: 'change',
    words: 'ratio half a part less',
    change: { what: 'ratio', by: -0.5 },
    because: [],
  };
  await show(<AdviceCard record={RECORD} advice={ratio} />, { takeAdvice });
  press('Keep it for Saltmarsh');
  await answered();
  const elsewhere = { ...RECORD, coffee: 'Nobody’s' };
  await show(<AdviceCard record={elsewhere} advice={ratio} />, { takeAdvice });
  expect(screen.getByText(/^Set it by hand: this coffee or its grinder is not on the bench/)).toBeTruthy();
  expect(asked).toHaveLength(2);
  expect(acted).toEqual([]);
});

test('advice that could not be taken up says why; a contradiction says what to look at, and offers no change', async () => {
  const refuse = () => Promise.reject(new Error('The record advises something else by now.'));
  await show(<AdviceCard record={RECORD} advice={COARSER} />, { takeAdvice: refuse });
  press('Set Grinder so');
  await answered();
  expect(screen.getByText(/Not set: The record advises something else by now/)).toBeTruthy();
  await show(
    <AdviceCard
      record={RECORD}
      advice={{
        kind: 'contradiction',
        words: 'It ran fast and is bitter all the same.',
        checkFirst: ['The dose'],
        because: [],
      }}
    />,
  );
  expect(screen.getByText('· The dose')).toBeTruthy();
  expect(screen.queryByTestId('take-up')).toBeNull();
});

test('what came of a change stands under it', async () => {
  const tried = { atMs: 0, words: '1 step coarser: about 3:05', expectS: 185, plusMinusS: 12 };
  await show(<AdviceCard record={RECORD} advice={{ kind: 'leave', because: [] }} />, {
    learnt: () =>
      Promise.resolve({
        ...LEARNT,
        tried: [
          { ...tried, result: { brewId: 'b', brewS: 190 } },
          { ...tried, atMs: 1, result: { brewId: 'c', brewS: 220 } },
        ],
      }),
  });
  const lines = screen.getAllByTestId('tried').map((line) => [line.props.children].flat(9).join(''));
  expect(lines[0]).toContain('1 step coarser. Expected 3:05 ± 0:12 (80 %), it took 3:10, as expected.');
  expect(lines[1]).toContain('it took 3:40, not as expected.');
});

test('a row says how long it took against its plan, and how it was', async () => {
  await show(<Brewed record={{ ...RECORD, taste: { balance: -1, strength: 0, atMs: 0 } }} />);
  expect(screen.getByTestId('real-time').props.children).toBe('3:42');
  expect(
    screen.getByText(/0:35 longer than planned, over its window\..*Tasted sour, right strength/),
  ).toBeTruthy();
  expect(verdict({ ...RECORD, realBrewS: null })).toBe('Served before its end mark was told.');
  expect(verdict({ ...RECORD, outcome: 'abandoned', reason: 'torn filter' })).toBe('Stopped: torn filter.');
  expect(verdict({ ...RECORD, realBrewS: 187 })).toBe('As planned, inside its window.');
});

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
  await show(<RunPage />, {
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
  await show(<RunPage />, {
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
  handsByMethod: [{ method: 'cone', cups: 12, handsS: 1830 }],
  remade: 1,
  abandoned: [{ reason: 'torn filter', count: 1 }],
  waste: { coffeeG: 17.6, waterG: 285 },
  inWindow: { of: 10, inside: 8 },
  learnt: ['Saltmarsh: 1 step coarser. It took 3:02.'],
};

test('a day is a page of figures; a day with nothing says so; one that does not come can be asked again', async () => {
  await show(<DayPage />, { day: () => Promise.resolve(DAY) });
  for (const text of ['12', '5:12', '10:40', '80 %', '1 late of 8', 'pilot', '1:35', '30:30'])
    expect(screen.getByText(text)).toBeTruthy();
  expect(screen.getByText('Saltmarsh: 1 step coarser. It took 3:02.')).toBeTruthy();
  await show(<DayPage />, { day: () => Promise.resolve({ ...DAY, cups: 0, abandoned: [] }) });
  expect(screen.getByText('Nothing was brewed on this day')).toBeTruthy();
  let asked = 0;
  const day = () => ((asked += 1) === 1 ? Promise.reject(new Error('away')) : Promise.resolve(DAY));
  await show(<DayPage />, { day });
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
  const { acted } = await show(<HousePage />, { house: () => Promise.resolve(HOUSE) });
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
  press('A new cloth, from nought');
  expect(acted.at(-1)).toMatchObject({ type: 'cloth-replaced', clothId: 'blue' });
});

test('hands show how long they take against the card, whose they are, and from how many steps; before that, what would teach it', async () => {
  const step = { kind: 'weigh' as const, cardS: 12, medianS: 9.6, fromS: 8, toS: 14.2, steps: 34 };
  const hands = (...people: HandsLearnt['people']) => ({ hands: () => Promise.resolve({ people }) });
  await show(
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
  await show(<HandsPage />, hands({ id: null, steps: [] }));
  expect(screen.getByText('Not known yet')).toBeTruthy();
});

test('a page of the log that the server does not know is said to be unknown, not broken', async () => {
  const refuse = () =>
    Promise.reject(new Refused(404, { type: '', title: '', status: 404, detail: 'There is no such day.' }));
  await show(<DayPage />, { day: refuse });
  expect(screen.getByText('There is no such day.')).toBeTruthy();
});

test('a sample round begins with its cups as one order, and shows no coffee while it is tasted', async () => {
  const { acted } = await show(<RoundPage />);
  press('Saltmarsh');
  press('Slack Tide decaf');
  press('Begin with 2');
  expect(acted.map(({ type: what }) => what)).toEqual(['round-begun', 'order-taken']);
  const [begun, taken] = acted as [
    Extract<BarEvent, { type: 'round-begun' }>,
    Extract<BarEvent, { type: 'order-taken' }>,
  ];
  expect(begun.cups.map(({ letter }) => letter)).toEqual(['A', 'B']);
  expect(taken.cups.map(({ coffee }) => coffee)).toEqual(begun.cups.map(({ coffee }) => coffee));
  await show(<RoundPage />, {}, { ...EMPTY_BAR, things: [begun] });
  expect(screen.queryByText(/Saltmarsh/)).toBeNull();
  expect(screen.getByLabelText('Score of B')).toBeTruthy();
});

test('a cup is asked after when it has cooled, until somebody has said a word or it is long gone', () => {
  const brew = (id: string, servedMs: number, more: object = {}) => [id, { id, servedMs, ...more }] as const;
  const state = {
    ...EMPTY_BAR,
    brews: Object.fromEntries([
      brew('hot', 9 * 60_000),
      brew('cool', 60_000),
      brew('told', 60_000, { taste: { atMs: 0 } }),
      brew('gone', -60 * 60_000),
    ]),
  } as unknown as BarState;
  expect(cooledBrews(state, 7, 10 * 60_000).map(({ id }) => id)).toEqual(['cool']);
});

const JOB: ImportJob = {
  id: 'i1',
  kind: 'log',
  name: 'before.csv',
  bytes: 100,
  phase: 'looked',
  share: 1,
  found: {
    rows: 1204,
    faulty: 2,
    shows: [{ line: 2, shows: 'Saltmarsh, cone-thirds, 18 g' }],
    faults: [{ line: 7, reason: 'roast must be one of very light, light.' }],
    fromMs: Date.UTC(2026, 0, 3, 12),
    toMs: Date.UTC(2026, 10, 20, 12),
  },
  taken: 0,
  known: 0,
  reason: null,
};

test('a log from elsewhere shows what was found and what is wrong; it is taken without the faulty rows, or stopped midway', async () => {
  let imports: Imports = { current: JOB, kept: [] };
  const said: unknown[] = [];
  const api: Partial<Api> = {
    imports: () => Promise.resolve(imports),
    takeFile: (id, leaveOut) => {
      said.push(['take', id, leaveOut]);
      imports = { current: { ...JOB, phase: 'taking', share: 0.424 }, kept: [] };
      return Promise.resolve(imports.current!);
    },
    endFile: (id) => {
      said.push(['end', id]);
      imports = { current: null, kept: [{ id: 'old', name: 'march.csv', brews: 30, atMs: 0 }] };
      return Promise.resolve(undefined);
    },
  };
  const card = (
    <LargeFileCard kind="log" title="Log from elsewhere">
      columns
    </LargeFileCard>
  );
  await show(card, api);
  expect(screen.getByText(/^before.csv: 1,204 brews, .*2026 to .*2026$/)).toBeTruthy();
  expect(screen.getByText('Not so: roast must be one of very light, light.')).toBeTruthy();
  expect(screen.getByText('… and 1 more row that cannot be taken.')).toBeTruthy();
  press('Import 1,202, skip 2');
  await answered();
  expect(screen.getByText('42 %')).toBeTruthy();
  press('Stop');
  await answered();
  press('Remove: march.csv');
  press('Yes, remove the brews of march.csv');
  await answered();
  expect(said).toEqual([
    ['take', 'i1', true],
    ['end', 'i1'],
    ['end', 'old'],
  ]);
  imports = {
    current: { ...JOB, phase: 'refused', found: null, reason: 'There is no line in it.' },
    kept: [],
  };
  await show(card, api);
  expect(screen.getByText('Not read in: There is no line in it.')).toBeTruthy();
});
