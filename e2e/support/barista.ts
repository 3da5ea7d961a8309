/**
 * What a barista does at the screen: takes orders, and does what the hands card says when it says it.
 */
import { randomUUID } from 'node:crypto';
import { expect, type Page } from '@playwright/test';
import { skippingBar, type RunningBar } from './bar';

const METHOD_IDS = {
  Cone: 'cone',
  'Flat-bottom': 'flat',
  Hourglass: 'hourglass',
  Press: 'press',
  Siphon: 'siphon',
  'Cloth sock': 'sock',
  'Air press': 'air-press',
  'Pressure pot': 'pressure-pot',
  'Long-handled pot': 'foam-pot',
} as const;

type Cup = { method: keyof typeof METHOD_IDS; recipe?: string; size: string; added?: string };

/** Opens the list of a field and chooses one of it, by its words or by its place. */
export async function choose(page: Page, field: string, option: string | number): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${field}: `) }).click();
  const items = page.getByRole('menuitem');
  const wanted =
    typeof option === 'number'
      ? items.nth(option)
      : page.getByRole('menuitem', { name: new RegExp(`^${option}(, chosen)?$`) });
  // Nobody taps what cannot be seen yet; it is measured before it stands in its place.
  await expect
    .poll(() => wanted.evaluate((item) => item.checkVisibility({ opacityProperty: true })))
    .toBe(true);
  await wanted.click();
  await expect(items).toHaveCount(0);
}

/** Takes an order through the form. */
export async function takeOrder(page: Page, name: string, cups: Cup[]): Promise<void> {
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await page.getByTestId('new-order').filter({ visible: true }).click();
  for (const [index, cup] of cups.entries()) {
    const number = index + 1;
    const methods = page.getByRole('radiogroup', { name: `Method of cup ${number}` });
    // Where there is a menu the form opens on that.
    if (index > 0 || !(await methods.isVisible())) await page.getByTestId('add-cup').click();
    await methods.getByRole('radio', { name: new RegExp(`^${cup.method},`) }).click();
    if (cup.recipe) await choose(page, `Recipe of cup ${number}`, cup.recipe);
    if (cup.added) await page.getByRole('button', { name: `With ${cup.added}, cup ${number}` }).click();
    await page.getByLabel(`Size of cup ${number}`).fill(cup.size);
  }
  await page.getByLabel('For whom').fill(name);
  await page.getByTestId('take-order').click();
  await expect(page.getByTestId('hands-card')).toBeVisible();
}

/** An order that was taken elsewhere, of the bar's first coffee: for flows that are about what comes after it. */
export async function orderComes(
  page: Page,
  bar: RunningBar,
  name: string,
  cups: Omit<Cup, 'added'>[],
): Promise<void> {
  const [{ recipes }, { coffees }, { barMs }] = await Promise.all([
    bar.get<{ recipes: { id: string; version: number; method: string; name: string }[] }>('/api/recipes'),
    bar.get<{ coffees: { name: string; roast: string }[] }>('/api/bar'),
    bar.get<{ barMs: number }>('/api/clock'),
  ]);
  const orderId = randomUUID();
  const asked = cups.map(({ method, recipe, size }, n) => {
    const { id, version } = recipes.find(
      (each) => each.method === METHOD_IDS[method] && each.name === (recipe ?? each.name),
    )!;
    const { name: coffee, roast } = coffees[0]!;
    return {
      cupId: `${orderId}-${n}`,
      recipeId: id,
      recipeVersion: version,
      coffee,
      roast,
      cupMl: Number(size),
    };
  });
  const taken = { id: randomUUID(), type: 'order-taken', atMs: barMs, orderId, name, cups: asked };
  expect((await bar.post([taken])).status).toBe(200);
  if (new URL(page.url()).pathname === '/') await expect(page.getByTestId('hands-card')).toBeVisible();
}

/** Asks again and again, each time after so many seconds of bar time. */
export const everySkipped =
  <Answer>(bar: RunningBar, seconds: number, ask: () => Promise<Answer>) =>
  async (): Promise<Answer> => {
    await bar.skip(seconds);
    return ask();
  };

/** Lets a practised hand pour on every simulated scale. */
export async function practisedHands(bar: RunningBar): Promise<void> {
  const { scales } = await bar.get<{ scales: { stationId: string }[] }>('/api/devices');
  for (const { stationId } of scales) await bar.order(`scales/${stationId}`, { do: 'practised', on: true });
}

export type Deed = { what: string; station: string };

type Look =
  | { over: true }
  | { over: false; what: string; station: string }
  /** What there is to wait for, bar seconds; null where only the page can tell. With how far a step is, per cent. */
  | {
      over: null;
      waitS: number | null;
      progress: number | null;
      /** The page's own time of day; null before it has one. */
      shows: string | null;
      isTapped?: true;
    };

/**
 * Does the one thing that the hands card asks for, when it asks for it: waits for the countdown, takes the time that
 * the step takes, taps. Where bar time stands, the waiting is skipped. Null where nothing is left to do, or where it comes to a
 * verb that is not to be done.
 */
export const doWhatItSays = (page: Page, butNot?: string): Promise<Deed | null> => doNext([page], butNot);

/** Does what the cards say until nothing is left to do, each person at a page of their own. Gives how many things each did. */
export async function workItOffTogether(pages: readonly Page[], most: number): Promise<number[]> {
  const deeds = pages.map(() => 0);
  for (let deed = await doNext(pages); deed; deed = await doNext(pages)) {
    deeds[deed.page]! += 1;
    expect(Math.max(...deeds)).toBeLessThan(most);
  }
  return deeds;
}

/** Does what the card says until nothing is left to do. Gives how many things that were. */
export const workItOff = async (page: Page, most: number): Promise<number> =>
  (await workItOffTogether([page], most))[0]!;

/** The next thing that one of the pages' cards asks for, done on that page. Nobody's time is skipped past what a card waits for. */
async function doNext(pages: readonly Page[], butNot?: string): Promise<(Deed & { page: number }) | null> {
  let skipped: Skipped | null = null;
  for (const untilMs = Date.now() + 60_000; Date.now() < untilMs;) {
    const waits: Wait[] = [];
    for (const [n, page] of pages.entries()) {
      const look: Look = await page.evaluate(lookAndTap, butNot);
      if (look.over === false) return { what: look.what, station: look.station.split(':')[0] ?? '', page: n };
      if (look.over === null) waits.push(look);
    }
    if (waits.length === 0) return null;
    const bar = skippingBar();
    // A page takes a moment to hear of a skip, a busy one seconds: until all show its time, and a card draws what that
    // changes, nothing more is skipped.
    const isDrawn = !skipped || cardsOf(waits) !== cardsOf(skipped.waits) || Date.now() > skipped.atMs + 2000;
    const isHeard =
      isDrawn && waits.every(({ shows }) => shows !== null && (!skipped || isSince(shows, skipped.toMs)));
    if (bar && isHeard && !waits.some(({ isTapped }) => isTapped)) {
      const was = waits.length === skipped?.waits.length ? skipped : null;
      const byS = Math.min(...waits.map((wait, n) => restOf(wait, was?.waits[n]?.progress, was?.byS)));
      skipped = { byS, waits, toMs: await bar.skip(byS), atMs: Date.now() };
    }
    await pages[0]!.waitForTimeout(25);
  }
  throw new Error('The hands card asked for nothing for a minute.');
}

type Wait = Look & { over: null };
type Skipped = { byS: number; waits: Wait[]; toMs: number; atMs: number };

const cardsOf = (waits: Wait[]) => JSON.stringify(waits.map(({ waitS, progress }) => [waitS, progress]));

/** Whether a page's clock that reads `shows`, such as 16:05:30, has come to this time. */
function isSince(shows: string, atMs: number): boolean {
  const at = new Date(atMs);
  const [hours = 0, minutes = 0, seconds = 0] = shows.split(':').map(Number);
  const sinceS =
    3600 * (hours - at.getHours()) + 60 * (minutes - at.getMinutes()) + seconds - at.getSeconds();
  return (sinceS + 86_400) % 86_400 < 43_200;
}

/** How long the card has still to be waited for, seconds: as it says, or as far as the last skip brought it. */
function restOf({ waitS, progress }: Wait, was?: number | null, byS = 0): number {
  if (waitS !== null) return Math.max(0.5, waitS);
  if (progress === null || was == null || progress <= was) return 1;
  return Math.min(60, Math.max(0.5, ((100 - progress) * byS) / (progress - was)));
}

/** Taps what the card asks for, in the moment in which it is read: a card may change under a slower thumb. */
function lookAndTap(stopAt: string | undefined): Look {
  const hands = document.querySelector('[data-testid="hands-card"]');
  const clock = document.querySelector('[data-testid="wall-clock"]')?.textContent;
  const shows = /\d\d:\d\d:\d\d/.exec(clock ?? '')?.[0] ?? null;
  const wait = (waitS: number | null, progress: number | null = null) =>
    ({ over: null, waitS, progress, shows }) as const;
  // The whole page is read only where the card is not there.
  if (!hands) return document.body.textContent?.includes('Nothing to do') ? { over: true } : wait(null);
  const verb = hands.querySelector('[data-testid="verb"]')?.textContent;
  if (stopAt && verb?.includes(stopAt)) return { over: true };
  const seconds = (text: string | null | undefined) => {
    const [, minutes, rest] = /(\d+):(\d\d)/.exec(text ?? '') ?? [];
    return rest === undefined ? null : 60 * Number(minutes) + Number(rest);
  };
  const countdown = hands.querySelector('[data-testid="countdown"]');
  if (countdown) return wait(seconds(countdown.textContent));
  const button = hands.querySelector('[data-testid="main-button"]');
  // What runs by the clock says how long; a pour on a connected scale is the pouring hand's, and ends by itself.
  if (!button) return wait(seconds(hands.querySelector('[data-testid="figure"]')?.textContent));
  const reading = hands.querySelector('[data-testid="reading"]');
  if (reading) return wait(2, Number(reading.textContent));
  const label = button.getAttribute('aria-label') ?? '';
  const bar = hands.querySelector('[role="progressbar"]');
  const progress = Number(bar?.getAttribute('aria-valuenow'));
  const moreS = /^(\d+) s more$/.exec(bar?.getAttribute('aria-valuetext') ?? '')?.[1];
  const begins = ['First water', 'Coffee meets water', 'Pouring'].includes(label);
  if (!begins && progress < 100) return wait(moreS === undefined ? null : Number(moreS), progress);
  const station = hands.querySelector('[role="status"]')?.getAttribute('aria-label') ?? '';
  // Nobody taps the same thing twice while the card is about to change.
  const tap = { what: `${station} ${label}`, atMs: performance.now() };
  const page = window as unknown as { lastTap?: typeof tap };
  if (page.lastTap?.what === tap.what && tap.atMs - page.lastTap.atMs < 1500)
    return { ...wait(null), isTapped: true };
  page.lastTap = tap;
  (button as HTMLElement).click();
  return { over: false, what: label, station };
}

type Step = {
  id: string;
  kind: string;
  attended: boolean;
  durationS: number;
  end: string;
  targetG?: number;
};
export type Brew = {
  id: string;
  status: string;
  stationName: string;
  startedMs: number;
  servedMs?: number;
  lastMs: number;
  notes?: { note: string }[];
  card: { doseG: number; brewWaterG: number; steps: Step[] };
  marks: Record<string, { begunMs?: number; doneMs?: number; readingG?: number; targetG?: number }>;
};
export type State = {
  seq: number;
  state: {
    orders: Record<
      string,
      {
        name?: string;
        promisedMs?: number;
        cups: { cupId: string; status: string; recipeId: string; brewIds: string[]; cups?: number }[];
      }
    >;
    brews: Record<string, Brew>;
  };
};

/** The bar's state as soon as `holds` is true of it: what was tapped last may still be on its way. */
export async function stateOnce(
  bar: RunningBar,
  holds: (state: State['state']) => boolean,
): Promise<State['state']> {
  let { state } = await bar.get<State>('/api/state');
  await expect
    .poll(async () => holds(({ state } = await bar.get<State>('/api/state')).state), {
      message: `the state that is waited for: ${String(holds)}`,
    })
    .toBe(true);
  return state;
}

/** All brews are made and their brewers clean again. */
export const allCleaned = ({ brews }: State['state']): boolean =>
  Object.values(brews).every(({ status }) => status === 'cleaned');

/** The stretches of bar time in which tapped steps kept the hands, each ending at its tap. */
export async function handSpans(
  bar: RunningBar,
): Promise<{ who: string; fromMs: number; toMs: number; seen: boolean }[]> {
  const { state } = await bar.get<State>('/api/state');
  return Object.values(state.brews)
    .flatMap((brew) =>
      brew.card.steps
        .filter((step) => step.attended && brew.marks[step.id]?.doneMs !== undefined)
        .map((step) => {
          const { begunMs, doneMs } = brew.marks[step.id]!;
          return {
            who: `${brew.stationName} ${step.id}`,
            fromMs: begunMs ?? doneMs! - step.durationS * 1000,
            toMs: doneMs!,
            // Its beginning was seen (by a scale, or a tap at the first water), not worked out from its usual length.
            seen: begunMs !== undefined,
          };
        }),
    )
    .sort((a, b) => a.fromMs - b.fromMs);
}
