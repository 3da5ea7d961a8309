/** `npm run backup [-- FILE]`: a copy of the bar's database, whole, while the server runs or not. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { must, root } from './lib.mjs';

await installPackages();
if (!existsSync(join(root, 'server/dist/backup.js'))) await buildServer();
await must(process.execPath, ['server/dist/backup.js', ...process.argv.slice(2)]);
