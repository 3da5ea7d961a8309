import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './tests',
  outputDir: './test-results',
  timeout: 120_000,
  expect: { timeout: 10_000 },
  // Each test has a server of its own; two at a time is what two cores carry.
  workers: 2,
  fullyParallel: true,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: '../reports/e2e.json' }]],
  // What is measured in milliseconds runs by itself, after the rest.
  projects: [
    { name: 'bar', testIgnore: /two-pages/ },
    { name: 'measured', testMatch: /two-pages/, dependencies: ['bar'] },
  ],
  use: {
    browserName: 'chromium',
    viewport: { width: 390, height: 844 },
    locale: 'en-GB',
    // What a service worker answers cannot be routed; the tests of the installed shell allow it.
    serviceWorkers: 'block',
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: process.env['CHROMIUM_PATH'] || '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking'],
    },
  },
});
