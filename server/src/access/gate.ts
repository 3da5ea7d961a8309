/**
 * Whether whoever asks may do so: by the cookie of a paired device, or the key of a program, and by the table of roles.
 * Where the bar is served to its own machine alone, nobody is paired and everybody is the lead.
 */
import type { IncomingHttpHeaders } from 'node:http';
import type { RequestHandler, Response } from 'express';
import { parseCookie, stringifySetCookie } from 'cookie';
import { EVENT_KINDS, type BarEventType } from '@even-kettle/core/brew';
import type { Me } from '@even-kettle/core/contract';
import { ADDRESSES, addressOf, type RouteId } from '@even-kettle/core/contract/addresses';
import {
  EVENT_ROLES,
  ROUTE_ROLES,
  isKeyRole,
  mayUse,
  type Asker,
  type Role,
} from '@even-kettle/core/contract/roles';
import { HttpProblem } from '../http/problem';
import { IDLE_MS, type Credentials, type Known } from './credentials';

/** With this beginning a browser takes it from a secure page of this very host alone. */
export const COOKIE = '__Host-even-kettle';

export type Caller = {
  asker: Asker;
  /** Null for whoever sits at the server's own machine, and for nobody. */
  known: Known | null;
  /** Its device or key was revoked. */
  isRevoked: boolean;
  newToken?: string;
};

export type Gate = {
  /** Whether devices have to be paired. */
  pairs: boolean;
  callerOf: (headers: IncomingHttpHeaders, mayRenew: boolean) => Caller;
};

const NOBODY: Caller = { asker: 'nobody', known: null, isRevoked: false };
const AT_THE_MACHINE: Caller = { asker: 'lead', known: null, isRevoked: false };

/** @param pairs whether devices have to be paired; a key that is sent is looked at in any case, so that a till is known by it */
export const openGate = (credentials: Pick<Credentials, 'find'> | null, pairs: boolean): Gate => ({
  pairs,
  callerOf: (headers, mayRenew) => {
    const key = /^Bearer ([\w-]{20,100})$/i.exec(headers.authorization ?? '')?.[1];
    const token = key ?? parseCookie(headers.cookie ?? '')[COOKIE];
    const found =
      token === undefined ? null : (credentials?.find(token, mayRenew && key === undefined) ?? null);
    // A key is for a program, a cookie for a browser: neither does for the other.
    const isFitting = found?.ok && isKeyRole(found.known.role) === (key !== undefined);
    if (found?.ok && isFitting)
      return {
        asker: found.known.role,
        known: found.known,
        isRevoked: false,
        ...(found.newToken === undefined ? {} : { newToken: found.newToken }),
      };
    if (!pairs) return AT_THE_MACHINE;
    return found?.ok === false && found.why === 'revoked' ? { ...NOBODY, isRevoked: true } : NOBODY;
  },
});

/** Finds out who asks, before a body is read. */
export const askWho =
  ({ callerOf }: Gate): RequestHandler =>
  (request, response, next) => {
    const caller = callerOf(request.headers, true);
    response.locals['caller'] = caller;
    if (caller.newToken !== undefined) setToken(response, caller.newToken);
    if (caller.asker === 'nobody' && !FOR_ANYBODY.test(request.path)) return next(notPaired(caller));
    next();
  };

/** The paths, within the API, that somebody who is not paired may ask for; each route is then judged by itself. */
const FOR_ANYBODY = new RegExp(
  `^(${[
    ...(Object.keys(ADDRESSES) as RouteId[])
      .filter((id) => ROUTE_ROLES[id].includes('nobody'))
      .map((id) => addressOf(id).path.replace('/api', '').replace('{id}', '[^/]+')),
    '/openapi\\.json',
  ].join('|')})/?$`,
  'i',
);

export const callerOn = (response: Response): Caller => response.locals['caller'] as Caller;

/** @throws HttpProblem where the caller's role may not use the route */
export function mustBeAllowed(route: RouteId, caller: Caller): void {
  if (mayUse(caller.asker, route)) return;
  throw caller.asker === 'nobody' ? notPaired(caller) : notForRole(ROUTE_ROLES[route]);
}

/** @throws HttpProblem where one of the events is not for the caller's role; what is no event is found out later */
export function mustBeAllowedEvents({ asker }: Caller, events: readonly unknown[]): void {
  for (const event of events) {
    const type = (event as { type?: unknown } | null)?.type;
    if (typeof type !== 'string' || !Object.hasOwn(EVENT_KINDS, type)) continue;
    const roles = EVENT_ROLES[EVENT_KINDS[type as BarEventType].moves];
    if (!roles.includes(asker)) throw notForRole(roles);
  }
}

export function setToken(response: Response, token: string): void {
  const cookie = {
    httpOnly: true,
    sameSite: 'strict',
    secure: true,
    path: '/',
    maxAge: IDLE_MS / 1000,
  } as const;
  response.append('Set-Cookie', stringifySetCookie({ name: COOKIE, value: token, ...cookie }));
}

export const meOf = ({ pairs }: Gate, { known }: Caller): Me => ({ pairs, device: known });

const notPaired = ({ isRevoked }: Caller): HttpProblem =>
  isRevoked
    ? new HttpProblem(
        401,
        'revoked',
        'This device was removed from the bar',
        'The lead’s device can pair it again: on the Bench, under Devices and keys.',
      )
    : new HttpProblem(
        401,
        'not-paired',
        'This device is not paired',
        'The lead’s device shows a code for it: on the Bench, under Devices and keys.',
      );

const ROLE_NAMES: Record<Role, string> = {
  lead: 'the lead’s device',
  barista: 'a barista’s device',
  board: 'a board',
  till: 'a till',
  bridge: 'a bridge',
  monitor: 'a monitor',
};

const notForRole = (roles: readonly Asker[]): HttpProblem => {
  const names = roles.filter((role): role is Role => role !== 'nobody').map((role) => ROLE_NAMES[role]);
  const who = names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} or ${names.at(-1)!}`;
  return new HttpProblem(403, 'not-for-this-role', 'This device may not do that', `Only ${who} may do that.`);
};
