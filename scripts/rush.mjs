/** `npm run rush`: hours by the card alone; an hour of boats through server and planner, with people who are late; then planned greedily, and one at a time. */
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { must, say } from './lib.mjs';

await installPackages();
await buildServer();
say('Hours by the card alone: what people do who see nothing else.');
await must(process.execPath, ['server/dist/rush-cards.js']);
say('An hour of boats, worked by people who are late and noisy.');
await must(process.execPath, ['server/dist/rush-hour.js']);
