import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * Serious faults for those who read by ear or see badly.
 * @param only `colours` where nothing else has changed since the page was looked at: that takes a fraction of the time
 */
export async function unreadable(page: Page, only?: 'colours'): Promise<string[]> {
  // The page has no frames; without them one script does.
  const axe = new AxeBuilder({ page }).setLegacyMode();
  const { violations } = await (only ? axe.withRules(['color-contrast']) : axe).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id} ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`);
}
