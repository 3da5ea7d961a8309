/**
 * Who may speak to the server: pages that it served itself, under a name that is its own. A page of another site must
 * reach nothing, neither by a request across sites nor by a name that it has pointed at this machine.
 */
import { hostname, networkInterfaces } from 'node:os';
import type { IncomingHttpHeaders } from 'node:http';

export type Access = { ok: true } | { ok: false; status: 403 | 421; reason: string };

export type AccessPolicy = {
  /** @param page whether it is a page or one of its files that is asked for, which a link elsewhere may lead to */
  judge: (headers: IncomingHttpHeaders, page: boolean) => Access;
};

const ALLOWED: Access = { ok: true };

/** @param extra names and addresses that the server is also reached by, as its settings give them */
export function accessPolicy(extra: readonly string[] = []): AccessPolicy {
  const given = new Set(extra.map(plain));
  return {
    judge: (headers, page) => {
      const host = hostOf(headers.host);
      if (host === null || !(given.has(host) || isOwnName(host)))
        return {
          ok: false,
          status: 421,
          reason: `This server does not answer to the name “${String(headers.host ?? '').slice(0, 80)}”. Use its address, or name it in EVEN_KETTLE_HOSTS.`,
        };
      if (headers.origin !== undefined && !sameHost(headers.origin, headers.host!))
        return { ok: false, status: 403, reason: 'Only pages of this server may ask this.' };
      const site = headers['sec-fetch-site'];
      if (!page && site !== undefined && site !== 'same-origin' && site !== 'none')
        return { ok: false, status: 403, reason: 'Only pages of this server may ask this.' };
      return ALLOWED;
    },
  };
}

/** Loopback, this machine's names, and the addresses that it has just now: a café's router gives out new ones. */
function isOwnName(host: string): boolean {
  if (host === 'localhost' || /^127\.\d+\.\d+\.\d+$/.test(host) || host === '::1') return true;
  const name = plain(hostname());
  if (host === name || host === `${name}.local` || host === name.split('.')[0]) return true;
  return Object.values(networkInterfaces())
    .flat()
    .some((address) => address && plain(address.address.split('%')[0]!) === host);
}

/** The name without its port; null where it is none. */
function hostOf(header: string | undefined): string | null {
  if (header === undefined || header === '') return null;
  try {
    const url = new URL(`http://${header}`);
    const isBare = url.pathname === '/' && url.search === '' && url.username === '' && url.hash === '';
    return isBare ? plain(url.hostname) : null;
  } catch {
    return null;
  }
}

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === new URL(`http://${host}`).host;
  } catch {
    return false;
  }
}

/** Small letters, no brackets around an address of version 6, no dot at the end. */
const plain = (name: string): string =>
  name
    .toLowerCase()
    .replace(/^\[|\]$/g, '')
    .replace(/\.$/, '');
