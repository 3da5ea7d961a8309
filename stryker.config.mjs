/** Changes formulas one by one and asks the core's tests to notice. `npm run mutate`; takes half an hour and more. */
export default {
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: { projectType: 'custom', configFile: 'jest.mutation.cjs' },
  coverageAnalysis: 'perTest',
  mutate: [
    'core/src/{recipe,units,water}/**/*.ts',
    '!core/src/recipe/methods/**',
    '!**/*.test.ts',
    '!**/index.ts',
  ],
  // The schools are data, not formulas: the golden tests hold them, figure by figure.
  // What is said to people is judged by people; figures and choices are what must be caught.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  reporters: ['clear-text', 'progress-append-only', 'html', 'json'],
  htmlReporter: { fileName: 'reports/mutation/index.html' },
  jsonReporter: { fileName: 'reports/mutation/mutation.json' },
  clearTextReporter: { logTests: false, allowColor: false },
  thresholds: { high: 90, low: 85, break: 85 },
  concurrency: Number(process.env.MUTATE_JOBS ?? 1),
  timeoutMS: 20_000,
  tempDirName: 'reports/.stryker',
  ignorePatterns: ['app', 'server', 'e2e', 'docs', 'reports', 'data'],
  disableTypeChecks: false,
  allowEmpty: false,
};
