import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './tests',
  globalSetup: './support/global-setup.ts',
  outputDir: './test-results',
  timeout: 300_000,
  expect: { timeout: 20_000 },
  // Each test has a server of its own. What one waits for another has the cores for.
  workers: 3,
  fullyParallel: true,
  // Bar time is skipped and not waited for, so that no machine is too slow: nothing gets a second try.
  retries: 0,
  reporter: [['list'], ['json', { outputFile: '../reports/e2e.json' }]],
  // The longest begin first, so that none of them is left over at the end. What is measured by the clock runs by itself,
  // after the rest.
  projects: [
    { name: 'long', testMatch: /scale|look/ },
    { name: 'bar', testIgnore: /two-pages|frames|scale|look/ },
    { name: 'two pages', testMatch: /two-pages/, dependencies: ['long', 'bar'] },
    { name: 'frames', testMatch: /frames/, dependencies: ['two pages'] },
  ],
  use: {
    browserName: 'chromium',
    viewport: { width: 390, height: 844 },
    locale: 'en-GB',
    // What a service worker answers cannot be routed; the tests of the installed shell allow it.
    serviceWorkers: 'block',
    // A trace of every step costs a quarter of the time; it is for when something has failed.
    trace: process.env['E2E_TRACE'] ? 'retain-on-failure' : 'off',
    launchOptions: {
      executablePath: process.env['CHROMIUM_PATH'] || '/usr/bin/chromium',
      // What sounds goes on to be worked out, and to no device: three pages that sound would take a core's tenth.
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-background-networking',
        '--disable-audio-output',
        '--disable-gpu',
        // Pages of one address run in one process, so that the next one finds the scripts compiled.
        '--process-per-site',
      ],
    },
  },
});
