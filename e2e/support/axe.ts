import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Serious faults for those who read by ear or see badly. */
export async function unreadable(page: Page): Promise<string[]> {
  // The page has no frames; without them one script does.
  const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id} ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`);
}
