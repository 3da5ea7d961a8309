/**
 * A new link that makes a device the lead's, for a bar whose lead's device is lost. It is run on the server's own machine,
 * beside the server or without it; whoever can run it can read the database as well.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { networkText } from '../network/invitation-text';
import { networkAddresses, networkFolder } from '../network/names';
import { readSettings } from '../settings';
import { openAccessDatabase } from './credential-rows';
import { openCredentials } from './credentials';

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const { databaseFile, port } = settings;
  const file = join(networkFolder(databaseFile), 'access.sqlite');
  if (!existsSync(file))
    throw new Error(
      `No bar was started with the database ${databaseFile}. Set EVEN_KETTLE_DB to where the bar’s is.`,
    );
  const credentials = await openCredentials(await openAccessDatabase(file));
  const { link } = await credentials.invite({ role: 'lead', name: 'Lead’s device' }, 'link');
  await credentials.close();
  const addresses = networkAddresses(settings, port);
  console.log(await networkText({ addresses, fingerprint: null, secret: link }));
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
