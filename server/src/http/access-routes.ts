/** Pairing, devices and keys over HTTP. */
import type { Access } from '@even-kettle/core/contract';
import { meOf, setToken, type Caller, type Gate } from '../access/gate';
import type { Credentials } from '../access/credentials';
import type { Till } from '../bar/outside-orders';
import { HttpProblem } from './problem';
import type { AddRoute } from './route';

export type Pairing = {
  credentials: Credentials;
  /** Where the bar is found on the network, the likeliest first. */
  addresses: () => string[];
  fingerprint: () => string | null;
};

export const tillOf = ({ known }: Caller): Till | undefined =>
  known?.role === 'till' ? { id: known.id, name: known.name } : undefined;

export function accessRoutes(route: AddRoute, gate: Gate, pairing: Pairing | null): void {
  route('getMe', ({ caller }) => meOf(gate, caller));
  route('pair', async ({ body, caller, response }) => {
    if (!pairing || !gate.pairs) throw NOBODY_PAIRS;
    const paired = await pairing.credentials.pair(body.secret, body.name);
    if (!paired.ok) throw paired.why === 'wrong' ? WRONG_SECRET : TOO_MANY_TRIES;
    // A device that is paired anew is not there twice.
    if (caller.known) await pairing.credentials.revoke(caller.known.id);
    setToken(response, paired.token);
    return { pairs: true, device: paired.known };
  });
  route('getAccess', ({ caller }) => shown(gate, pairing, caller));
  route('invite', async ({ body }) => {
    if (!pairing || !gate.pairs) throw NOBODY_PAIRS;
    const { code, link, untilMs } = await pairing.credentials.invite(body, 'code');
    return { code, link: `${pairing.addresses()[0] ?? ''}/pair#${link}`, untilMs };
  });
  route('makeKey', async ({ body }) => {
    const made = await pairing?.credentials.makeKey(body.role, body.name);
    if (!made) throw AS_MANY_AS_MAY_BE;
    return made;
  });
  route('changeAccess', async ({ id, body }) => {
    answered(await pairing?.credentials.change(id, body));
  });
  route('revoke', async ({ id }) => {
    answered(await pairing?.credentials.revoke(id));
  });
}

function shown(gate: Gate, pairing: Pairing | null, caller: Caller): Access {
  const rows = pairing?.credentials.all() ?? [];
  return {
    pairs: gate.pairs,
    addresses: pairing?.addresses() ?? [],
    fingerprint: pairing?.fingerprint() ?? null,
    devices: rows.map(({ id, name, role, person, madeMs, seenMs }) => ({
      id,
      name,
      role,
      ...(person === null ? {} : { person }),
      madeMs,
      seenMs,
      here: caller.known?.id === id,
    })),
  };
}

function answered(outcome: Awaited<ReturnType<Credentials['change']>> | undefined): void {
  if (outcome === undefined || outcome === 'unknown') throw NO_SUCH_DEVICE;
  if (outcome !== 'changed') throw REFUSALS[outcome];
}

const refusal = (code: string, detail: string): HttpProblem =>
  new HttpProblem(409, code, 'Nothing was changed', detail);

const REFUSALS = {
  'last-lead': refusal(
    'last-lead',
    'This is the last device of the lead. Pair another one as the lead’s first.',
  ),
  'key-role': refusal('key-role', 'A key keeps its role. Make another key for another purpose.'),
};

const NO_SUCH_DEVICE = new HttpProblem(
  404,
  'no-such-device',
  'No such device',
  'No device or key of this id is paired with the bar.',
);

const AS_MANY_AS_MAY_BE = refusal(
  'full',
  'The bar has 200 devices and keys, which is the most. Remove some first.',
);

const NOBODY_PAIRS = refusal(
  'pairs-nobody',
  'The bar is served to its own machine alone, so nothing has to be paired. Start it with --network to open it to the network.',
);

const WRONG_SECRET = new HttpProblem(
  403,
  'wrong-code',
  'The code does not work',
  'This code or link does not work, or not any more. Each works once, for five minutes. Ask for a new one.',
);

const TOO_MANY_TRIES = new HttpProblem(
  429,
  'too-many-tries',
  'Too many tries',
  'All devices together can try ten codes or links a minute. Wait a minute, then try again.',
);
