/** `npm start`: the bar, with its own data in data/even-kettle.sqlite. */
import { installPackages } from './install.mjs';
import { build } from './build.mjs';
import { say } from './lib.mjs';
import { serve } from './serve.mjs';

await installPackages();
await build();
say(`Even Kettle: http://127.0.0.1:${process.env.PORT || 4173}   (Ctrl+C stops it)`);
serve({});
