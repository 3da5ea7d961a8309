/** What the Log's tests stand at: a brew that ran late, what is learnt of it, and a page that asks a server for more. */
import type { ReactNode } from 'react';
import { act } from '@testing-library/react-native';
import { QueryClient, QueryClientProvider, notifyManager } from '@tanstack/react-query';
import { EMPTY_BAR, type BarState } from '@even-kettle/core/brew';
import type { BrewRecord, Learnt } from '@even-kettle/core/contract';
import type { Api } from '../client/api';
import type { BarView } from '../client/store';
import { TEST_BAR, showPage, viewOf } from './bar';

export const RECORD: BrewRecord = {
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
export const LEARNT: Learnt = {
  recipeId: 'cone-thirds',
  coffee: 'Saltmarsh',
  versions: [2],
  run: [],
  chart: null,
  grind: null,
  retention: null,
  drawdown: null,
  tried: [],
};

/** Answers come within the `act` that waits for them. */
notifyManager.setScheduler((notify) => notify());
/** Lets what was answered be drawn; no clock is waited for. */
export const answered = () =>
  act(async () => {
    for (let turn = 0; turn < 20; turn += 1) await Promise.resolve();
  });

export async function showLogPage(
  page: ReactNode,
  api: Partial<Api> = {},
  state: BarState = EMPTY_BAR,
  link: BarView['link'] = 'live',
  bar = TEST_BAR,
) {
  const client = new QueryClient({
    defaultOptions: { queries: { gcTime: Infinity, retry: false }, mutations: { gcTime: Infinity } },
  });
  const shown = showPage(<QueryClientProvider client={client}>{page}</QueryClientProvider>, {
    view: viewOf({ state, link, bar }),
    api: { learnt: () => Promise.resolve(LEARNT), ...api },
  });
  await answered();
  return shown;
}
