/** `npm run -s ek -- …`: the command line. What it has to say of setting itself up goes to stderr. */
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { root, run } from './lib.mjs';

console.log = console.error;
await installPackages();
await buildServer();
process.exitCode = await run(process.execPath, [join(root, 'server/dist/ek.js'), ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
});
