/** `npm run restore [-- NAME]`: lists the bar's copies, or puts one in the place of its database. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { must, root } from './lib.mjs';

await installPackages();
if (!existsSync(join(root, 'server/dist/restore.js'))) await buildServer();
await must(process.execPath, ['server/dist/restore.js', ...process.argv.slice(2)]);
