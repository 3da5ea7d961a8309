/** Type-checks every workspace. */
import { bin, run, say } from './lib.mjs';

say('Checking types.');
const codes = [];
for (const workspace of ['core', 'server', 'app', 'e2e'])
  codes.push(await run(bin('tsc'), ['--noEmit', '-p', workspace]));
process.exit(codes.some((code) => code !== 0) ? 1 : 0);
