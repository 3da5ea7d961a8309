/** Somebody of every role, with what each sends along; paired before the server is started. */
import { dirname, join } from 'node:path';
import { DEVICE_ROLES, KEY_ROLES, type Asker } from '@even-kettle/core/contract/roles';
import { openAccessDatabase } from '../src/access/credential-rows';
import { openCredentials } from '../src/access/credentials';

export type Askers = Record<Asker, Record<string, string>>;

/** A bar that pairs nobody takes everybody for the lead. */
export const AT_THE_MACHINE: Askers = {
  lead: {},
  barista: {},
  board: {},
  till: {},
  bridge: {},
  monitor: {},
  nobody: {},
};

export async function pairedAskers(databaseFile: string): Promise<Askers> {
  // The authority is made by the server that is started after this, and all of it is on this machine.
  process.env['NODE_TLS_REJECT_UNAUTHORIZED'] = '0';
  const file = join(dirname(databaseFile), 'network', 'access.sqlite');
  const credentials = await openCredentials(await openAccessDatabase(file));
  const askers = structuredClone(AT_THE_MACHINE);
  for (const role of DEVICE_ROLES) {
    const { link } = await credentials.invite({ role, name: role }, 'link');
    const paired = await credentials.pair(link);
    if (paired.ok) askers[role] = { Cookie: `__Host-even-kettle=${paired.token}` };
  }
  for (const role of KEY_ROLES)
    askers[role] = { Authorization: `Bearer ${(await credentials.makeKey(role, role))!.key}` };
  await credentials.close();
  return askers;
}
