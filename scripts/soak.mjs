/** `npm run soak`: kills the server and cuts the network while a bar works, then thousands of runs of three devices. */
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { bin, must, say } from './lib.mjs';

await installPackages({ all: true });
await buildServer();
say('A bar that works while its server is killed and its network is cut.');
await must(process.execPath, ['server/dist/soak.js']);
say('Three devices on a bad network, thousands of times.');
await must(bin('jest'), ['--selectProjects', 'core', '--testPathPattern', 'replica.fuzz', '--silent=false'], {
  env: { FUZZ: process.env.FUZZ || '75', NODE_ENV: 'test' },
});
