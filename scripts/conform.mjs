/** `npm run conform [-- port]`: does a bridge keep the line protocol? See docs/devices.md. */
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { must } from './lib.mjs';

await installPackages();
await buildServer();
await must(process.execPath, ['server/dist/conform.js', ...process.argv.slice(2)]);
