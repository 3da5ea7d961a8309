/** `npm run fuzz`: thousands of requests that are wrong in every way against the built server (`REQUESTS`, `FUZZ_SEED`). */
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { must, say } from './lib.mjs';

await installPackages({ all: true });
await buildServer();
say('Requests made from the API’s own description, right and wrong.');
await must(process.execPath, ['server/dist/fuzz.js']);
