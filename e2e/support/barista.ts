/**
 * What a barista does at the screen: takes orders, and does what the hands card says when it says it.
 */
import { expect, type Page } from '@playwright/test';
import type { RunningBar } from './bar';

type Cup = {
  method:
    | 'Cone'
    | 'Flat-bottom'
    | 'Hourglass'
    | 'Press'
    | 'Siphon'
    | 'Cloth sock'
    | 'Air press'
    | 'Pressure pot'
    | 'Long-handled pot';
  recipe?: string;
  size: string;
  added?: string;
};

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

/** Lets a practised hand pour on every simulated scale. */
export async function practisedHands(bar: RunningBar): Promise<void> {
  const { scales } = await bar.get<{ scales: { stationId: string }[] }>('/api/devices');
  for (const { stationId } of scales) await bar.order(`scales/${stationId}`, { do: 'practised', on: true });
}

/** Does what the card says until nothing is left to do. Gives how many things that were. */
export async function workItOff(page: Page, most: number): Promise<number> {
  let deeds = 0;
  while (await doWhatItSays(page)) {
    deeds += 1;
    expect(deeds).toBeLessThan(most);
  }
  return deeds;
}

export type Deed = { what: string; station: string };

/**
 * Does the one thing that the hands card asks for, when it asks for it: waits for the countdown, takes the time that
 * the step takes, taps. Null where nothing is left to do, or where it comes to a verb that is not to be done.
 */
export async function doWhatItSays(page: Page, butNot?: string): Promise<Deed | null> {
  const deed = await page.waitForFunction(
    (stopAt) => {
      const verb = document.querySelector('[data-testid="hands-card"] [data-testid="verb"]')?.textContent;
      if (stopAt && verb?.includes(stopAt)) return { over: true } as const;
      const hands = document.querySelector('[data-testid="hands-card"]');
      // The whole page is read only where the card is not there: it is looked forty times a second.
      if (!hands)
        return document.body.textContent?.includes('Nothing to do') ? ({ over: true } as const) : null;
      const button = hands.querySelector('[data-testid="main-button"]');
      if (!button || hands.querySelector('[data-testid="countdown"]')) return null;
      // A pour on a connected scale is the pouring hand's, and ends by itself.
      if (hands.querySelector('[data-testid="reading"]')) return null;
      const label = button.getAttribute('aria-label') ?? '';
      const progress = Number(hands.querySelector('[role="progressbar"]')?.getAttribute('aria-valuenow'));
      const begins = label === 'First water' || label === 'Coffee meets water';
      if (!begins && progress < 100) return null;
      const station = hands.querySelector('[role="status"]')?.getAttribute('aria-label') ?? '';
      // Tapped in the moment in which it was read: on a clock that runs so fast, a card may change under a slower thumb.
      (button as HTMLElement).click();
      return {
        over: false,
        what: label,
        station,
      } as const;
    },
    butNot,
    { polling: 25, timeout: 60_000 },
  );
  const found = await deed.jsonValue();
  if (!found || found.over) return null;
  return { what: found.what, station: found.station.split(':')[0] ?? '' };
}

/** Does what the card says until it asks for something, by its verb. */
export async function until(page: Page, verb: string): Promise<void> {
  for (let deeds = 0; await doWhatItSays(page, verb); deeds += 1) expect(deeds).toBeLessThan(20);
  await expect(page.getByTestId('verb').first()).toContainText(verb);
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
