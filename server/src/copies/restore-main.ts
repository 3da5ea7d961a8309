/** `npm run restore [-- NAME]`: lists the copies, or puts one in the place of the database. The server is stopped first. */
import { basename } from 'node:path';
import { existsSync } from 'node:fs';
import { readSettings } from '../settings';
import { lockDatabase } from '../store/database';
import { copiesFolder, copiesIn, summaryOf } from './copy-files';
import { proveCopy } from './prove';
import { restoreCopy } from './restore';

async function main(named: string | undefined): Promise<void> {
  const { databaseFile } = readSettings(process.env);
  const folder = copiesFolder(databaseFile);
  const copies = copiesIn(folder);
  if (named === undefined) {
    if (copies.length === 0) return console.log(`There are no copies in ${folder}.`);
    console.log(`Copies in ${folder}, latest first. To go back to one: npm run restore -- NAME`);
    for (const { name, file, bytes } of copies) {
      const summary = summaryOf(file);
      const state =
        summary === null ? 'cannot be read' : `${summary.events} events${summary.isWhole ? '' : ', damaged'}`;
      console.log(`  ${name}  ${(bytes / 1e6).toFixed(1)} MB  ${state}`);
    }
    return;
  }
  const file = copies.find(({ name }) => name === basename(named))?.file ?? named;
  if (!existsSync(file))
    throw new Error(`There is no copy ${named}. Without a name, npm run restore lists them.`);
  const unlock = lockDatabase(databaseFile);
  try {
    const proof = await proveCopy(file);
    if (!proof.ok) throw new Error(`The copy ${file} is not whole, and nothing was changed. ${proof.reason}`);
    const { kept, lost } = await restoreCopy(databaseFile, file);
    console.log(`${databaseFile} is the copy ${basename(file)} now, with ${proof.seq} events.`);
    if (lost !== null) console.log(`${lost} later events are not in it.`);
    if (kept !== null) console.log(`What stood there before is kept at ${kept}.`);
  } finally {
    unlock();
  }
}

main(process.argv[2]).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
