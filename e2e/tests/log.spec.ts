/** The Log: a brew on a scale is tasted, its one change taken up, and the next brew shows what came of it. */
import { readFileSync } from 'node:fs';
import { expect, test } from '../support/bar';
import {
  choose,
  allCleaned,
  doWhatItSays,
  practisedHands,
  stateOnce,
  orderComes,
  workItOff,
  type State,
} from '../support/barista';

test.describe('dial-in', () => {
  test('brewed on the scale, tasted, “coarser” taken up, brewed again: expectation stands against result', async ({
    page,
    bar,
  }) => {
    test.setTimeout(180_000);
    await bar.set({
      stations: [{ id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m', scale: 'simulated' }],
      tasteAfterMin: 1,
    });
    await practisedHands(bar);
    await page.goto(bar.url);
    await orderComes(page, bar, 'first', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
    while (await doWhatItSays(page, 'drops only'));
    // Whoever has the bed in sight knows when it was through; a page that slept meanwhile does not.
    const [brewing] = Object.values((await bar.get<State>('/api/state')).state.brews);
    const { barMs } = await bar.get<{ barMs: number }>('/api/clock');
    await bar.skip(190 - (barMs - brewing!.marks['bloom']!.begunMs!) / 1000);
    for (let seconds = 0; seconds < 14; seconds += 1) {
      await bar.skip(1);
      await page.waitForTimeout(80);
    }
    await workItOff(page, 40);
    const before = await stateOnce(bar, allCleaned);
    const [brewId] = Object.keys(before.brews);

    // A minute later it is asked after, quietly.
    await bar.skip(60);
    await page.getByRole('link', { name: 'Log', exact: true }).click();
    await page.getByRole('button', { name: /^Taste House coffee/ }).click();
    await expect(
      page.getByRole('img', { name: /^Water over time: planned 285 g.*weighed 28\d g/ }),
    ).toBeVisible();
    await page.getByRole('radio', { name: 'bitter', exact: true }).click();
    await page.getByRole('radio', { name: 'right', exact: true }).click();
    await page.getByRole('button', { name: 'bed even' }).click();
    await page.getByLabel('TDS, %').fill('140');
    await expect(page.getByText('TDS must be at most 25 %')).toBeVisible();
    await page.getByLabel('TDS, %').fill('1.42');
    await page.getByTestId('keep-taste').click();
    await expect(page.getByTestId('advice')).toHaveText(
      /^\d(\.5)? steps? coarser: about \d:\d\d ± \d:\d\d \(80 %\), from 1 brew$/,
    );
    await expect(page.getByRole('img', { name: /1.42 % strength, \d+(\.\d)? % extracted/ })).toBeVisible();
    await page.getByTestId('take-up').click();
    await expect(page.getByTestId('tried')).toContainText('not brewed since');
    // It is kept for this coffee with this recipe.
    type Changes = Record<string, { grindBy?: Record<string, number> }>;
    const { coffees } = await bar.get<{ coffees: { recipeChanges?: Changes }[] }>('/api/bar');
    expect(coffees[0]!.recipeChanges!['cone-thirds']!.grindBy!['grinder-1']).toBeGreaterThan(0);

    await bar.order('scales/cone-1', { do: 'practised', on: false });
    await orderComes(page, bar, 'second', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
    await bar.work();
    await stateOnce(bar, (state) => Object.keys(state.brews).length === 2 && allCleaned(state));
    await page.goto(`${bar.url}/log/${brewId}`);
    await expect(page.getByTestId('tried')).toHaveText(
      /coarser\. Expected \d:\d\d ± \d:\d\d \(80 %\), it took \d:\d\d, (not )?as expected\.$/,
    );
    // The new setting is in the record of the new brew, and the two lie over each other.
    const { records } = await bar.get<{ records: { brewId: string; grind: { setting: number } }[] }>(
      '/api/log',
    );
    const [second, first] = records;
    expect(second!.grind.setting).toBeGreaterThan(first!.grind.setting);
    await choose(page, 'Compare with another brew', 1);
    await expect(page.getByRole('img', { name: /, 1 ended at \d:\d\d/ })).toBeVisible();
  });
});

test.describe('two weeks', () => {
  test.use({ demo: 'weeks' });

  test('a brew is found by its words and its taste, a run shows its shift, a day its late orders, and the log is taken along', async ({
    page,
    bar,
  }) => {
    await page.goto(`${bar.url}/log`);
    await page.getByLabel('Search the log').fill('saltmarsh sock');
    await expect(page.getByTestId('brewed').first()).toContainText('Saltmarsh · Cloth sock');
    await page.getByLabel('Search the log').fill('nothing like that');
    await expect(page.getByText('No brew is like that')).toBeVisible();
    await page.getByRole('button', { name: 'Show all' }).click();
    await page.getByRole('button', { name: 'Filter' }).click();
    await choose(page, 'Taste', 'bitter');
    await expect(page.getByTestId('brewed').first()).toContainText('bitter');

    // One day of the two weeks: yesterday's cups and no others.
    await page.getByRole('button', { name: 'Clear the filter' }).click();
    const dayOf = (back: number) => {
      const day = new Date();
      day.setDate(day.getDate() - back);
      return `${day.getFullYear()}-${String(day.getMonth() + 1).padStart(2, '0')}-${String(day.getDate()).padStart(2, '0')}`;
    };
    await page.getByRole('textbox', { name: 'From the day' }).fill(dayOf(3));
    await page.getByRole('textbox', { name: 'To the day' }).fill(dayOf(3));
    await expect(page.getByTestId('brewed')).toHaveCount(16);
    const table = async (button: string) => {
      const saved = page.waitForEvent('download');
      await page.getByRole('button', { name: button }).click();
      return readFileSync(await (await saved).path(), 'utf8')
        .trim()
        .split('\r\n');
    };
    expect(await table('Save these brews as CSV')).toHaveLength(1 + 16);
    await page.getByTestId('brewed').filter({ hasText: 'Cone' }).first().click();
    const weight = await table('Save what is drawn as CSV');
    expect(weight[0]).toBe('s,g');
    expect(weight.length).toBeGreaterThan(20);
    await page.getByRole('link', { name: 'Log', exact: true }).click();

    await page.getByRole('button', { name: 'Brew-time trend' }).click();
    await choose(page, 'Recipe', 'Bloom and three pours');
    await choose(page, 'Coffee', 'Saltmarsh');
    await expect(page.getByText(/^It has shifted: since brew \d+ it takes 1\d s longer/)).toBeVisible();
    const picture = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the chart as PNG' }).click();
    const png = readFileSync(await (await picture).path());
    expect(png.subarray(1, 4).toString()).toBe('PNG');

    await page.goto(`${bar.url}/log/files`);
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save: Log, CSV' }).click();
    const csv = readFileSync(await (await saved).path(), 'utf8');
    expect(csv.split('\r\n').length).toBeGreaterThan(220);

    await page.goto(`${bar.url}/log/house`);
    // Whatever the time of day: the siphon's cloth was boiled on a day before, and now today.
    const boiled = page.getByText(/^boiled /).last();
    await expect(boiled).toHaveText(/^boiled \d+ \w+, \d\d:\d\d/);
    await page.getByRole('button', { name: 'Siphon cloth was boiled' }).click();
    await expect(boiled).toHaveText(/^boiled \d\d:\d\d/);

    await page.goto(`${bar.url}/log/day`);
    // Two days back: a run that crosses midnight finds yesterday without a brew.
    await page.getByRole('button', { name: 'Day before' }).click({ clickCount: 2 });
    await expect(page.getByText(/\d+ late of \d+|No order was late/)).toBeVisible();
  });

  test('a cup of two weeks ago is measured today, and its page has it after a reload', async ({
    page,
    bar,
  }) => {
    await page.goto(`${bar.url}/log/past-14-3-1.1`);
    await page.getByRole('radio', { name: 'very bitter' }).click();
    await page.getByLabel('TDS, %').fill('1.41');
    await page.getByLabel('TDS, %').press('Enter');
    await expect(page.getByText('Strength and extraction')).toBeVisible();
    await page.reload();
    await expect(page.getByText('Strength and extraction')).toBeVisible();
    await expect(page.getByRole('radio', { name: 'very bitter' })).toBeChecked();

    // Three others over it, and one of them away again: numbers follow.
    for (let n = 1; n <= 3; n += 1) await choose(page, 'Compare with another brew', n);
    await expect(page.getByRole('img', { name: /, 1 ended at .*, 2 ended at .*, 3 ended at/ })).toBeVisible();
    await expect(page.getByLabel('Compare with another brew')).toBeHidden();
    await page.getByRole('button', { name: /^Take away 2: / }).click();
    await expect(page.getByRole('button', { name: /^Take away 3: / })).toBeHidden();
    await expect(page.getByRole('img', { name: /, 1 ended at .*, 2 ended at \d:\d\d$/ })).toBeVisible();

    await page.getByRole('link', { name: 'Log', exact: true }).click();
    await page.getByLabel('Search the log').fill('very bitter');
    await expect(page.getByTestId('brewed').first()).toContainText('very bitter');
  });

  test('a roast list is shown line by line before it is taken', async ({ page, bar }) => {
    await page.goto(`${bar.url}/log/files`);
    const choose = async (text: string) => {
      const chooser = page.waitForEvent('filechooser');
      await page.getByRole('button', { name: 'Choose a file: Roast list' }).click();
      await (await chooser).setFiles({ name: 'roasts.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    };
    await choose('coffee,roast\nGull,light\nFog,purple\n');
    await expect(page.getByText('Gull, light')).toBeVisible();
    await expect(page.getByText(/^Not so: roast must be one of/)).toBeVisible();
    await expect(page.getByRole('button', { name: '1 to mend first' })).toBeDisabled();
    await choose('coffee,roast\nGull,light\nFog,dark\n');
    await page.getByRole('button', { name: 'Import all 2' }).click();
    await expect(page.getByText('2 lines were taken.')).toBeVisible();
    const { coffees } = await bar.get<{ coffees: { name: string }[] }>('/api/bar');
    expect(coffees.map(({ name }) => name)).toEqual(expect.arrayContaining(['Gull', 'Fog']));
  });
});

test('a log from elsewhere comes in without its faulty rows, is stopped midway without a trace, and goes out again', async ({
  page,
  bar,
}) => {
  const head = 'ended,coffee,recipe,dose_g,brew_s\n';
  const row = (n: number) =>
    `${new Date(1_700_000_000_000 + n * 1000).toISOString()},Gull,cone-thirds,18,${180 + (n % 20)}\n`;
  const choose = async (name: string, text: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Choose a file: Log from elsewhere, from CSV' }).click();
    await (await chooser).setFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  };
  const inTheLog = async () => (await bar.get<{ records: unknown[] }>('/api/log?limit=200')).records.length;
  await page.goto(`${bar.url}/log/files`);
  await choose('before.csv', `${head}${row(1)}yesterday,Gull,cone-thirds,18,190\n${row(3)}`);
  await expect(page.getByText(/^before.csv: 3 brews/)).toBeVisible();
  await expect(page.getByText('Not so: ended must be a time such as 2026-11-20T08:15:00Z.')).toBeVisible();
  await page.getByRole('button', { name: 'Import 2, skip 1' }).click();
  // A thread of its own is started for it, beside two other tests.
  await expect(page.getByText('2 brews came into the log.')).toBeVisible({ timeout: 60_000 });
  expect(await inTheLog()).toBe(2);

  const many = Array.from({ length: 40_000 }, (_, n) => row(100 + n)).join('');
  await choose('years.csv', head + many);
  await page.getByRole('button', { name: 'Import all 40,000' }).click();
  await expect(page.getByRole('progressbar', { name: 'Taking it: years.csv' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(
    page.getByRole('button', { name: 'Choose a file: Log from elsewhere, from CSV' }),
    'what was taken is out again',
  ).toBeEnabled({ timeout: 60_000 });
  expect(await inTheLog()).toBe(2);

  await page.getByRole('button', { name: 'Remove: before.csv' }).click();
  await page.getByRole('button', { name: 'Yes, remove the brews of before.csv' }).click();
  await expect(page.getByRole('button', { name: 'Remove: before.csv' })).toHaveCount(0);
  await expect.poll(inTheLog).toBe(0);
});
