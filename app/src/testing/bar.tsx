/** What the app's tests stand at: a small bar, and a page on it. */
import type { ReactNode } from 'react';
import { act, fireEvent, render, screen, within } from '@testing-library/react-native';

import type { BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { SCHOOLS, bookOf, type Recipe } from '@even-kettle/core/recipe';
import { METRIC, type Units } from '@even-kettle/core/units';
import { effectOf, quoteOrder, standingPlan } from '@even-kettle/core/plan';
import type { Api } from '../client/api';
import { BarContext, type BarHere } from '../client/bar-context';
import { openDeviceReadings } from '../client/device-board';
import type { Planner } from '../client/planner';
import { NOTHING_LOADED, type BarView } from '../client/bar-view';
import { ThemeProvider } from '../ui/use-theme';

export const OUNCES: Units = { mass: 'oz', temperature: 'F', volume: 'fl oz' };

/** A bar that nobody has set up. */
export const NEW_BENCH: Bar = {
  name: 'New bar',
  units: METRIC,
  hands: 1,
  altitudeM: 0,
  roomC: 21,
  tapC: 15,
  burners: 0,
  water: { name: 'Tap' },
  grinders: [],
  kettles: [],
  stations: [],
  coffees: [],
  people: [],
  cloths: [],
  tasteAfterMin: 7,
  setUp: { open: true, steps: [] },
};

/** A cone, a sock, a press and a siphon; two coffees; one grinder of half a step a band or so. */
export const TEST_BAR: Bar = {
  name: 'Test bar',
  units: METRIC,
  hands: 1,
  altitudeM: 0,
  roomC: 21,
  tapC: 90,
  burners: 1,
  water: { name: 'Tap' },
  grinders: [
    {
      id: 'g',
      name: 'Grinder',
      points: [
        { band: 20, setting: 30 },
        { band: 80, setting: 6 },
      ],
      keepsG: 0.4,
    },
  ],
  kettles: [{ id: 'k', name: 'Kettle', powerW: 1200, sizeMl: 1200 }],
  stations: [
    { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' },
    { id: 'sock-1', name: 'Sock', brewerId: 'sock' },
    { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' },
    { id: 'press-1', name: 'Press 1', brewerId: 'press-350' },
  ],
  people: [],
  cloths: [],
  tasteAfterMin: 7,
  coffees: [
    { id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: '', decaf: false, grindOffsets: { g: -1 } },
    { id: 'slack', name: 'Slack Tide decaf', roast: 'medium', notes: '', decaf: true },
  ],
};

export const viewOf = (part: Partial<BarView> = {}): BarView => ({
  ...NOTHING_LOADED,
  status: 'ready',
  link: 'live',
  bar: TEST_BAR,
  ...part,
});

/** What the page's worker would say to a question for quotes, by the same planner, a moment later. */
const answerQuotes: Planner['ask'] = (given, question, hear) => {
  let silent = false;
  setTimeout(() => {
    if (silent) return;
    const { state, bench, nowMs, plan } = given;
    const standing = { state, bench, book: bookOf(SCHOOLS), nowS: Math.ceil(nowMs / 1000), plan };
    const base = standingPlan(standing);
    const { ask } = question;
    if (ask === 'effect') act(() => hear({ ask, effect: effectOf(standing, base, question.events) }));
    if (ask !== 'quotes') return;
    act(() => {
      for (const { name, cups } of question.drafts)
        hear({ ask: 'quotes', name, quote: quoteOrder(standing, base, cups), careful: true });
    });
  }, 0);
  return () => void (silent = true);
};

type Standing = { view?: BarView; api?: Partial<Api>; nowMs?: number };

/** A page's bar that stands as it is given; what it is told is noted. */
export function barHere({ view = viewOf(), api = {}, nowMs = 5000 }: Standing = {}) {
  const acted: BarEvent[] = [];
  const saved: Recipe[] = [];
  const store = {
    view: () => view,
    subscribe: () => () => undefined,
    act: (events: BarEvent[]) => (acted.push(...events), true),
    tookRecipe: (recipe: Recipe) => saved.push(recipe),
    tookBar: () => undefined,
    given: () => ({ state: view.state, bench: view.bar, saved: [], nowMs, plan: view.plan }),
  };
  const here = {
    store,
    api,
    devices: openDeviceReadings(),
    planner: { ask: answerQuotes, plan: () => Promise.resolve(null) },
    clock: { nowMs: () => nowMs, rate: () => 1, onSet: () => () => undefined },
  } as unknown as BarHere;
  return { here, acted, saved };
}

/** A page on the bar. Gives what it told the store, and what it asked of the server. */
export function showPage(page: ReactNode, standing: Standing = {}) {
  const { here, acted, saved } = barHere(standing);
  render(
    <ThemeProvider>
      <BarContext.Provider value={here}>{page}</BarContext.Provider>
    </ThemeProvider>,
  );
  return { acted, saved };
}

/** A plain tap, as a browser tells it. */
const TAP = { button: 0, preventDefault: () => undefined };
export const press = (label: string | RegExp) =>
  act(() => fireEvent.press(screen.getByLabelText(label), TAP));
export const type = (label: string | RegExp, text: string) =>
  act(() => fireEvent.changeText(screen.getByLabelText(label), text));
/** What the list of a field offers, each as it is stored. */
export function offered(label: string): string[] {
  press(new RegExp(`^${label}: `));
  // One that was chosen from is still on its way out.
  const list = within(screen.getAllByLabelText(label).at(-1)!);
  return list
    .getAllByTestId(/^option-(?!.*-title$)/)
    .map(({ props }) => String(props['testID']).replace('option-', ''));
}

/** Opens the list of a field and chooses one of it. */
export function choose(label: string, value: string): void {
  press(new RegExp(`^${label.replace(/[()]/g, '\\$&')}: `));
  act(() => fireEvent.press(screen.getByTestId(`option-${value}`)));
}

/** The tab's own storage, as a browser has it; what is kept in it can be looked at. */
export function tabStorage(): Map<string, string> {
  const kept = new Map<string, string>();
  Object.assign(globalThis, {
    sessionStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    },
  });
  return kept;
}
