/** Chromium, as the scripts start it. */
import { createRequire } from 'node:module';
import { CHROMIUM, installChromium } from './install.mjs';

export async function openBrowser() {
  await installChromium();
  const { chromium } = createRequire(import.meta.url)('@playwright/test');
  return chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking'],
  });
}
