/** What a chart says under the finger and by keyboard, and the table behind it. */
import { unreadableInAnyTheme } from '../support/axe';
import { expect, test } from '../support/bar';

test.use({ demo: 'weeks' });

test('the trend is read brew by brew, by keyboard and by finger, and as a table that is sorted; a day is chosen in a calendar', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/log/run?recipeId=cone-thirds&coffee=Saltmarsh`);
  const chart = page.getByRole('slider', { name: 'Brew time, brew by brew' });
  await chart.focus();
  await page.keyboard.press('End');
  const last = await chart.getAttribute('aria-valuetext');
  expect(last).toMatch(/^Brew \d+: \d:\d\d, grinder at/);
  await expect(page.getByText(last!)).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText(last!)).toBeHidden();
  const box = (await chart.boundingBox())!;
  await page.mouse.move(box.x + box.width - 43, box.y + 80);
  await expect(page.getByText(last!)).toBeVisible();

  await page.getByRole('button', { name: 'Show as a table' }).click();
  const table = page.getByRole('table', { name: 'Brews of this run' });
  await table.getByRole('button', { name: 'Sort by Time' }).click();
  await table.getByRole('button', { name: 'Sort by Time' }).click();
  await expect(table.getByRole('columnheader', { name: 'Time' })).toHaveAttribute('aria-sort', 'descending');
  const times = (await table.getByRole('row').allTextContents())
    .slice(1)
    .map((text) => /(\d):(\d\d)(?=[^:]*(?:inside|outside))/.exec(text)!)
    .map(([, minutes, seconds]) => Number(minutes) * 60 + Number(seconds));
  expect(times.length).toBeGreaterThan(10);
  expect(times).toEqual([...times].sort((a, b) => b - a));
  expect(await unreadableInAnyTheme(page)).toEqual([]);

  await page.goto(`${bar.url}/log`);
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('textbox', { name: 'From the day' }).fill('soon');
  await expect(page.getByText(/^Type a day like/)).toBeVisible();
  await page.getByRole('textbox', { name: 'From the day' }).fill('');
  await page.getByRole('button', { name: 'Choose in a calendar: From the day' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(await unreadableInAnyTheme(page)).toEqual([]);
  await page.getByRole('dialog').getByText('1', { exact: true }).last().click();
  await expect(page.getByRole('textbox', { name: 'From the day' })).toHaveValue(/^01\//);
});
