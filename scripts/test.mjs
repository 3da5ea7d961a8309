/**
 * `npm test`: types, lint, unit, component and API tests, end-to-end tests. Ends with the sums of the runners' own
 * reports, and fails if anything did.
 */
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { bin, root, run, say } from './lib.mjs';
import { installChromium, installPackages } from './install.mjs';
import { build } from './build.mjs';

const reports = join(root, 'reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports);

await installPackages({ all: true });
await installChromium();

const sums = { passed: 0, failed: 0 };
let broken = false;

/** How long each part took, as it ends: where a slow run spends its time. */
async function timed(what, work) {
  say(what);
  const fromMs = performance.now();
  const result = await work();
  console.log(`  ${what}: ${Math.round((performance.now() - fromMs) / 1000)} s`);
  return result;
}

/** A check with no count of its own. */
async function check(what, command, args) {
  if ((await timed(what, () => run(command, args))) !== 0) {
    broken = true;
    console.error(`✗ ${what} failed.`);
  }
}

async function counted(what, command, args, report, read) {
  const code = await timed(what, () => run(command, args, { env: { NODE_ENV: 'test' } }));
  const file = join(reports, report);
  if (!existsSync(file)) {
    broken = true;
    return console.error(`✗ ${what} left no report.`);
  }
  const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')));
  sums.passed += passed;
  sums.failed += failed;
  if (code !== 0 || passed === 0) broken = true;
}

// Two lanes of about the same length, one to a core. What is well says nothing, so they may go side by side.
await Promise.all([
  check('Lint', bin('eslint'), ['.', '--max-warnings', '0']),
  (async () => {
    await check('Types', process.execPath, ['scripts/types.mjs']);
    await check('Promises, switches and cycles', bin('oxlint'), ['--type-aware']);
    await check('Dead code', bin('knip'), []);
    await check('Format', bin('oxfmt'), ['--check']);
  })(),
]);
await counted(
  'Unit, component and API tests',
  bin('jest'),
  // Both cores work: the tests have the machine to themselves.
  ['--maxWorkers', '2', '--json', '--outputFile', 'reports/unit.json'],
  'unit.json',
  (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
  }),
);
await timed('Build', build);
await counted(
  'End-to-end tests',
  bin('playwright'),
  ['test', '--config', 'e2e/playwright.config.ts'],
  'e2e.json',
  ({ stats, errors }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky + errors.length }),
);

console.log(`\n${sums.passed} passed, ${sums.failed} failed`);
process.exit(broken || sums.failed > 0 ? 1 : 0);
