/** What is heard, said, kept awake and typed; each verified in the browser, each with a switch. */
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import { doWhatItSays, everySkipped, orderComes, takeOrder, type State } from '../support/barista';

type Counts = { tones: number; spoken: string[]; locks: number; shakes: number };

/** Counts what the page asks of the browser; the audio graph and the voice are the browser's own. */
async function listen(page: Page): Promise<() => Promise<Counts>> {
  await page.addInitScript(() => {
    const counts = { tones: 0, spoken: [] as string[], locks: 0, shakes: 0 };
    (window as unknown as { counts: typeof counts }).counts = counts;
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (when?: number) {
      counts.tones += this.context.state === 'running' ? 1 : 0;
      return start.call(this, when);
    };
    speechSynthesis.speak = (said: SpeechSynthesisUtterance) => void counts.spoken.push(said.text);
    const request = navigator.wakeLock.request.bind(navigator.wakeLock);
    navigator.wakeLock.request = async (type?: WakeLockType) => {
      const lock = await request(type);
      counts.locks += 1;
      return lock;
    };
    navigator.vibrate = () => (counts.shakes += 1) > 0;
  });
  return () => page.evaluate(() => (window as unknown as { counts: Counts }).counts);
}

test('tones, voice, vibration and a screen that stays on are there, and each can be switched off', async ({
  page,
  bar,
}) => {
  const counts = await listen(page);
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('switch', { name: 'A spoken cue' }).click();
  await page.getByRole('button', { name: 'Try: Tone for “late”' }).click();
  await expect.poll(async () => (await counts()).tones).toBe(3);
  await takeOrder(page, 'window', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
  // Up to the bloom, after which the next pour is waited for: it is called twice.
  await bar.work('swirl-bloom');
  await expect(page.getByTestId('brew-clock').first()).toBeVisible();
  const before = await counts();
  expect(before.locks).toBeGreaterThan(0);
  const spoken = async () => (await counts()).spoken.slice(before.spoken.length);
  const ready = 'Get ready. Cone 1: Pour to 128 grams.';
  await expect.poll(everySkipped(bar, 1, spoken), { timeout: 60_000 }).toEqual([ready]);
  await expect
    .poll(everySkipped(bar, 1, spoken), { timeout: 60_000 })
    .toEqual([ready, 'Now. Cone 1: Pour to 128 grams.']);
  const after = await counts();
  expect(after.tones - before.tones).toBe(3);
  expect(after.shakes - before.shakes).toBe(2);

  // The browser lets the screen go while the page is hidden; it is taken again.
  const locks = after.locks;
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  const again = await page.context().newPage();
  await again.goto('about:blank');
  await again.bringToFront();
  await page.bringToFront();
  expect((await counts()).locks).toBeGreaterThanOrEqual(locks);

  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  for (const name of [
    'A spoken cue',
    'Vibration',
    'Tone for “get ready”',
    'Tone for “now”',
    'Tone for “late”',
  ])
    await page.getByRole('switch', { name }).click();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  const quiet = await counts();
  await doWhatItSays(page);
  await doWhatItSays(page);
  const still = await counts();
  expect([still.tones, still.spoken.length, still.shakes]).toEqual([
    quiet.tones,
    quiet.spoken.length,
    quiet.shakes,
  ]);
});

test('a tone comes from its station’s side, as loud as a bar needs, on the browser’s own audio graph', async ({
  page,
  bar,
}) => {
  // The same graph, rendered into memory in place of a loudspeaker.
  await page.addInitScript(() => {
    class Rendered extends OfflineAudioContext {
      constructor() {
        super(2, 60 * 44_100, 44_100);
        Object.assign(window, { rendered: this });
      }
      // A memory has no time of its own until it is rendered; so tones keep the page's.
      override get currentTime() {
        return performance.now() / 1000;
      }
      override get state() {
        return 'running' as const;
      }
      override async resume() {}
    }
    Object.assign(window, { AudioContext: Rendered });
  });
  await page.goto(bar.url);
  await takeOrder(page, 'window', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
  // The cone is the first of the bench; its pour is announced.
  await bar.work('swirl-bloom');
  const verb = page.getByTestId('verb');
  const isDue = async () =>
    (await verb.textContent()) === 'Pour to' && !(await page.getByTestId('countdown').isVisible());
  await expect.poll(everySkipped(bar, 1, isDue), { intervals: [1000], timeout: 90_000 }).toBe(true);
  const [left, right, peak] = await page.evaluate(async () => {
    const { rendered } = window as unknown as { rendered: OfflineAudioContext };
    const buffer = await rendered.startRendering();
    const sides = [buffer.getChannelData(0), buffer.getChannelData(1)];
    const loudness = (side: Float32Array) =>
      Math.sqrt(side.reduce((sum, value) => sum + value * value, 0) / side.length);
    return [...sides.map(loudness), sides[0]!.reduce((most, value) => Math.max(most, Math.abs(value)), 0)];
  });
  expect(left!).toBeGreaterThan(4 * right!);
  expect(peak!).toBeGreaterThan(0.4);
  expect(peak!).toBeLessThanOrEqual(1);
});

test('with counting on and no scale the first tap begins a pour, which is counted into its target by voice', async ({
  page,
  bar,
}) => {
  const counts = await listen(page);
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('switch', { name: /A voice counts into a pour/ }).click();
  await takeOrder(page, 'window', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
  await bar.work('pour-2');
  const before = (await counts()).spoken.length;
  const main = page.getByTestId('main-button');
  await expect(main).toHaveText('Pouring', { timeout: 40_000 });
  // The clock of the brew stands with its pour once that is due.
  const isDue = () => page.getByTestId('brew-clock').isVisible();
  await expect.poll(everySkipped(bar, 1, isDue), { timeout: 60_000 }).toBe(true);
  await main.click();
  await expect(main).toHaveText('Poured');
  const spoken = async () => (await counts()).spoken.slice(before);
  await expect.poll(everySkipped(bar, 1, spoken), { timeout: 60_000 }).toEqual(['twenty', 'ten', 'stop']);
});

test('a phone over plain HTTP is told what is missing there, and works on', async ({ page, bar }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'isSecureContext', { value: false });
    Object.defineProperty(Navigator.prototype, 'wakeLock', { value: undefined, configurable: true });
    delete (Navigator.prototype as unknown as { wakeLock?: unknown }).wakeLock;
    delete (Navigator.prototype as unknown as { serviceWorker?: unknown }).serviceWorker;
  });
  await page.goto(`${bar.url}/bench`);
  const note = page.getByRole('note', { name: 'What this device does not give' });
  await expect(note).toContainText(
    'The screen may go dark while a brew runs: the page was opened over plain HTTP.',
  );
  await expect(note).toContainText('cannot be opened while the server is away');
  await expect(page.getByRole('switch', { name: /The screen stays on/ })).toBeDisabled();
  await takeOrder(page, 'window', [{ method: 'Cone', size: '250' }]);
  expect(await doWhatItSays(page)).not.toBeNull();
});

test('with a keyboard: space does it, U takes it back, a figure takes a station, N an order, and ? lists the keys', async ({
  page,
  bar,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [
    { method: 'Press', size: '250' },
    { method: 'Cone', size: '250' },
  ]);
  const verb = page.getByTestId('verb');
  const first = await verb.textContent();
  await page.locator('body').click({ position: { x: 640, y: 20 } });
  await page.keyboard.press(' ');
  await expect.poll(async () => Object.keys((await bar.get<State>('/api/state')).state.brews).length).toBe(1);
  await page.keyboard.press('u');
  await expect.poll(async () => Object.keys((await bar.get<State>('/api/state')).state.brews).length).toBe(0);
  await expect(verb).toHaveText(first!);
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(keys).toContainText('undo the latest tap');
  await page.keyboard.press('Escape');
  await expect(keys).toBeHidden();
  await page.keyboard.press(' ');
  await expect.poll(async () => Object.keys((await bar.get<State>('/api/state')).state.brews).length).toBe(1);
  const [brew] = Object.values((await bar.get<State>('/api/state')).state.brews);
  const stations = (await bar.get<{ stations: { name: string }[] }>('/api/bar')).stations;
  await page.keyboard.press(String(stations.findIndex(({ name }) => name === brew!.stationName) + 1));
  await expect(page.getByTestId('hands-card')).toContainText(brew!.stationName);
  await page.keyboard.press('n');
  await expect(page.getByLabel('For whom')).toBeVisible();
  // In a field the keys are the field's.
  await page.getByLabel('For whom').fill('');
  await page.getByLabel('For whom').pressSequentially('un b?');
  await expect(page.getByLabel('For whom')).toHaveValue('un b?');
  await expect(keys).toBeHidden();
});
