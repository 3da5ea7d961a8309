/** Practice: a pour with the mouse, scored and tried again, and a lab of two variants; nothing of it is on the bar. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import { choose } from '../support/barista';

const root = fileURLToPath(new URL('../..', import.meta.url));

test.use({ demo: 'bench' });
test.setTimeout(180_000);

/** Holds four grams a second over the bed, going round, until it is over. `steady` is how far off the flow may be. */
async function hold(page: Page, steady: number): Promise<number> {
  const bed = (await page.getByTestId('bed').boundingBox())!;
  const [x, y] = [bed.x + bed.width / 2, bed.y + bed.height / 2];
  await page.mouse.move(x, y - 60);
  await page.mouse.down();
  const read = async (id: string) =>
    parseFloat(
      (await page
        .getByTestId(id)
        .textContent({ timeout: 1000 })
        .catch(() => '')) || '0',
    );
  const result = page.getByTestId('pour-result');
  await page.mouse.wheel(0, 850);
  for (let n = 0; n < 900 && !(await result.isVisible()); n += 1) {
    const [flow, g] = [await read('drill-flow'), await read('drill-reading')];
    await page.mouse.move(x + 60 * Math.sin(n / 6), y - 60 * Math.cos(n / 6));
    if (g >= 98) await page.mouse.up();
    else if (flow < 4 - steady) await page.mouse.wheel(0, 20);
    else if (flow > 4 + steady) await page.mouse.wheel(0, -20);
    await page.waitForTimeout(50);
  }
  await page.mouse.up();
  await expect(result).toBeVisible();
  return Number(await page.getByTestId('score').textContent());
}

test('a flow is held with mouse and wheel: it is scored, advised, tried again, and kept on the record only when asked', async ({
  page,
  bar,
}) => {
  const before = await bar.get<{ seq: number }>('/api/state');
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('button', { name: 'Practice' }).click();
  await page.getByRole('button', { name: 'Start: Pour drill' }).click();
  await page.getByRole('radio', { name: 'Hold 4 g/s' }).click();
  await choose(page, 'Who practises', 'Imre');
  await page.getByTestId('start-pouring').click();

  // Half a try is no try.
  await page.getByRole('button', { name: 'Stop this try' }).click();
  await expect(page.getByTestId('pour-result')).toHaveCount(0);
  await page.getByTestId('start-pouring').click();
  const first = await hold(page, 1.2);
  expect(first).toBeGreaterThan(20);
  await expect(page.getByTestId('advice')).not.toBeEmpty();
  expect(await bar.get('/api/practice')).toEqual({ items: [], next: null });

  await page.getByTestId('try-again').click();
  const second = await hold(page, 0.3);
  expect(second).toBeGreaterThan(40);
  await expect(page.getByRole('slider', { name: 'Scores, try by try' })).toHaveAttribute(
    'aria-valuemax',
    '2',
  );
  await page.getByTestId('keep-try').click();
  await expect(page.getByText('This try is on the record.')).toBeVisible();
  expect(await bar.get('/api/practice')).toMatchObject({
    items: [{ kind: 'try', person: 'imre', drill: 'hold', score: second }],
  });
  expect((await bar.get<{ seq: number }>('/api/state')).seq).toBe(before.seq);

  // Tries of this device are there after a reload.
  await page.reload();
  await page.getByRole('radio', { name: 'Hold 4 g/s' }).click();
  await page.getByRole('radio', { name: 'My best' }).click();
  await expect(page.getByText('You have no earlier try')).toHaveCount(0);
});

test.describe('on a scale', () => {
  // A hand pours as long as it holds.
  test.use({ rate: 1 });

  test('a real pour is scored by its scale alone, and the scale’s station has no brew of it', async ({
    page,
    bar,
  }) => {
    const before = await bar.get<{ seq: number }>('/api/state');
    await page.goto(`${bar.url}/practice/pour`);
    await page.getByRole('radio', { name: 'Hold 4 g/s' }).click();
    await choose(page, 'Pour on', 'The scale at Cone 1');
    await page.getByTestId('start-pouring').click();
    const hold = (await page.getByTestId('hold-to-pour').boundingBox())!;
    await page.mouse.move(hold.x + hold.width / 2, hold.y + hold.height / 2);
    await page.mouse.down();
    const reading = async () => Number(await page.getByTestId('drill-reading').textContent());
    await expect.poll(reading, { timeout: 60_000 }).toBeGreaterThan(90);
    await page.mouse.up();
    await expect(page.getByTestId('pour-result')).toBeVisible({ timeout: 60_000 });
    expect(Number(await page.getByTestId('score').textContent())).toBeGreaterThan(40);
    await expect(page.getByText('not seen by a scale')).toBeVisible();
    await expect(page.getByText('Share this pour')).toHaveCount(0);
    expect((await bar.get<{ seq: number }>('/api/state')).seq).toBe(before.seq);
  });
});

test('the rush lab tells two variants apart, keeps one, and exports what the command line runs', async ({
  page,
  bar,
}) => {
  const before = await bar.get<{ seq: number }>('/api/state');
  await page.goto(`${bar.url}/practice`);
  await page.getByRole('button', { name: 'Start: Rush lab' }).click();
  await page.getByTestId('cups-an-hour').fill('500');
  await expect(page.getByTestId('run-lab')).toBeDisabled();
  await page.getByTestId('cups-an-hour').fill('8');
  await page.getByTestId('add-variant').click();
  await page
    .getByRole('radiogroup', { name: 'Hands of variant A' })
    .getByRole('radio', { name: '1', exact: true })
    .click();
  await page.getByLabel('Name of variant A').fill('One barista');
  await page.getByRole('radio', { name: '6 shifts' }).click();

  // Cancelled, it stays with what has come.
  await page.getByTestId('run-lab').click();
  await page.getByRole('button', { name: 'Cancel', exact: true }).click();
  await expect(page.getByTestId('run-lab')).toBeVisible();
  await page.getByTestId('run-lab').click();
  await expect(page.getByTestId('difference')).toContainText('B against A', { timeout: 120_000 });
  await expect(page.getByRole('button', { name: 'JSON' })).toBeVisible({ timeout: 120_000 });

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'JSON' }).click(),
  ]);
  const file = join(mkdtempSync(join(tmpdir(), 'even-kettle-lab-')), 'lab.json');
  await download.saveAs(file);
  const said = execFileSync(process.execPath, [join(root, 'server/dist/ek.js'), 'lab', file], {
    encoding: 'utf8',
  });
  expect(said).toMatch(/^One barista: .* cups an hour/);
  expect(said.trim().split('\n')).toHaveLength(2);

  await page.getByRole('button', { name: 'Save variant A' }).click();
  await expect(page.getByText('One barista is saved')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Add the saved variant One barista' }).click();
  await expect(page.getByLabel('Name of variant B')).toHaveValue('One barista');
  expect((await bar.get<{ seq: number }>('/api/state')).seq).toBe(before.seq);
});

test('six cups are worked off on the hands card of a bar of one’s own, reviewed against the plan, and looked at again', async ({
  page,
  bar,
}) => {
  const before = await bar.get<{ seq: number }>('/api/state');
  await page.goto(`${bar.url}/practice`);
  await page.getByRole('button', { name: 'Start: Rush drill' }).click();
  await page.getByRole('radio', { name: /^Six cups/ }).click();
  await page.getByRole('radio', { name: '8 ×' }).click();
  await page.getByRole('switch', { name: 'A colleague works beside you' }).click();
  await page.getByRole('switch', { name: 'A kettle runs dry' }).click();
  await page.getByTestId('start-rush').click();
  const review = page.getByTestId('rush-review');
  const main = page.getByTestId('main-button');
  for (let looks = 0; looks < 400 && !(await review.isVisible()); looks += 1) {
    if (await main.isEnabled({ timeout: 200 }).catch(() => false))
      await main.click({ timeout: 500 }).catch(() => undefined);
    await page.waitForTimeout(400);
  }
  await expect(review).toBeVisible();
  await expect(page.getByTestId('idle')).toContainText('Something was due and your hands were idle');
  await expect(review.getByText(/^Next: /)).toBeVisible();
  await expect(review.getByText('not out')).toHaveCount(0);

  // The shift again: the rail shows brews that were under way.
  const slider = page.getByRole('slider', { name: 'Moment of the shift' });
  await slider.focus();
  await page.keyboard.press('PageUp');
  await expect(slider).toHaveAttribute('aria-valuetext', '1:00');
  await expect(review.getByText('The next 8 minutes')).toBeVisible();
  expect((await bar.get<{ seq: number }>('/api/state')).seq).toBe(before.seq);
});

test('a trainer assigns a lesson, whose person finds it on their device and starts it with what to notice', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/practice/trainer`);
  await choose(page, 'To whom', 'Noor');
  await choose(page, 'Lesson', '3. A clean stop');
  await page.getByTestId('assign').click();
  await expect(page.getByText('A clean stop: not done yet')).toBeVisible();
  await page.goto(`${bar.url}/practice/pour`);
  await choose(page, 'Who practises', 'Noor');
  await page.getByRole('button', { name: 'Practice', exact: true }).click();
  await expect(page.getByText('Noor, your trainer asks you to do this one.')).toBeVisible();
  await page.getByRole('button', { name: 'Start the lesson A clean stop' }).click();
  await expect(page.getByText(/^A clean stop\. Notice/)).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Stop on 50' })).toBeChecked();
  await page.goto(`${bar.url}/practice/print?person=noor`);
  await expect(page.getByRole('heading', { name: 'Lessons of Noor' })).toBeVisible();
  await expect(page.getByText('3. A clean stop (asked for)')).toBeVisible();
});
