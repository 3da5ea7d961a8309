/**
 * `npm run test:long`: what takes too long for every change. Random tests with ten times their runs (`FUZZ` changes how many),
 * the lab's simulations, a bar whose server is killed and whose disk fails, a few of each, and the browser's flows twice over
 * without a second try.
 */
import { bin, must, say } from './lib.mjs';
import { installChromium, installPackages } from './install.mjs';
import { build } from './build.mjs';

await installPackages({ all: true });
await installChromium();
say('Random tests with many runs, and simulations.');
await must(bin('jest'), ['--maxWorkers', '2', '--testPathPattern', '\\.(fuzz|long)\\.test\\.'], {
  env: { NODE_ENV: 'test', LONG: '1', FUZZ: process.env.FUZZ || '10' },
});
await build();
say('A bar that works while its server is killed and its network is cut, a little of each.');
await must(process.execPath, ['server/dist/soak.js'], {
  env: {
    KILLS: process.env.KILLS || '5',
    BAD_KILLS: process.env.BAD_KILLS || '3',
    CUTS: process.env.CUTS || '5',
  },
});
say('The browser’s flows, each twice.');
await must(bin('playwright'), [
  'test',
  '--config',
  'e2e/playwright.config.ts',
  '--retries',
  '0',
  '--repeat-each',
  '2',
]);
