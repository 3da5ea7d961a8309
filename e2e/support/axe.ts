import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * Serious faults for those who read by ear or see badly.
 * @param only `colours` where nothing else has changed since the page was looked at: that takes a fraction of the time
 */
export async function unreadable(page: Page, only?: 'colours'): Promise<string[]> {
  // The page has no frames; without them one script does.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  const { violations } = await (only ? axe.withRules(['color-contrast']) : axe).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id} ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`);
}

/** Chooses a theme as another page of the same device would. */
export const chooseTheme = (page: Page, theme: 'day' | 'evening' | 'sun'): Promise<void> =>
  page.evaluate((choice) => {
    localStorage.setItem('even-kettle.look', choice);
    window.dispatchEvent(new StorageEvent('storage', { key: 'even-kettle.look', newValue: choice }));
  }, theme);

/** Serious faults in any of the three themes, by theme; what lies over the page stays open meanwhile. */
export async function unreadableInAnyTheme(page: Page): Promise<string[]> {
  const found = await unreadable(page);
  for (const theme of ['evening', 'sun', 'day'] as const) {
    await chooseTheme(page, theme);
    // Colours change in one step; what fades has come to its end.
    await page.waitForTimeout(400);
    found.push(...(await unreadable(page, 'colours')).map((fault) => `${theme}: ${fault}`));
  }
  return found;
}
