/** `npm run lead-link`: a new link that makes a device the lead's, where the lead's device is lost. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { must, root } from './lib.mjs';

await installPackages();
if (!existsSync(join(root, 'server/dist/lead-link.js'))) await buildServer();
await must(process.execPath, ['server/dist/lead-link.js']);
