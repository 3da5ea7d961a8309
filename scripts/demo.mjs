/** `npm run demo`: Lantern Pier in the middle of a burst, with fresh data every time. */
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { build } from './build.mjs';
import { must, root, say } from './lib.mjs';
import { serve } from './serve.mjs';

await installPackages();
await build();
const databaseFile = join(root, 'data/demo.sqlite');
say('Making the demo’s data: a shift at Lantern Pier.');
await must(process.execPath, ['server/dist/demo.js'], {
  env: { EVEN_KETTLE_DB: databaseFile, DEMO_FEED: 'on' },
});
say(`Lantern Pier: http://127.0.0.1:${process.env.PORT || 4173}   (Ctrl+C stops it)`);
serve({ EVEN_KETTLE_DB: databaseFile });
