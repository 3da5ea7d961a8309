/**
 * Who may send requests: pages that this server served, under a name that is its own. A page of another site must not
 * reach anything, neither by a cross-site request nor by a host name that it has pointed at this machine.
 */
import { hostname, networkInterfaces } from 'node:os';
import type { IncomingHttpHeaders } from 'node:http';

export type Access = { ok: true } | { ok: false; status: 403 | 421; reason: string };

export type AccessPolicy = {
  /**
   * @param page whether the request is for a page or one of its files, which a link on another site may open
   * @param isSecure whether it came over HTTPS: then a page of the same name that came in the clear is another site, since
   *   somebody on the way may have written it
   */
  judge: (headers: IncomingHttpHeaders, page: boolean, isSecure?: boolean) => Access;
};

const ALLOWED: Access = { ok: true };

/** @param extra further names and addresses of this server, from its settings */
export function accessPolicy(extra: readonly string[] = []): AccessPolicy {
  const given = new Set(extra.map(plain));
  return {
    judge: (headers, page, isSecure = false) => {
      const host = hostOf(headers.host);
      if (host === null || !(given.has(host) || isOwnName(host)))
        return {
          ok: false,
          status: 421,
          reason: `This server does not answer to the name “${String(headers.host ?? '').slice(0, 80)}”. Use its address, or name it in EVEN_KETTLE_HOSTS.`,
        };
      if (headers.origin !== undefined && !isOwnPage(headers.origin, headers.host!, isSecure))
        return { ok: false, status: 403, reason: 'Only pages of this server may ask this.' };
      const site = headers['sec-fetch-site'];
      if (!page && site !== undefined && site !== 'same-origin' && site !== 'none')
        return { ok: false, status: 403, reason: 'Only pages of this server may ask this.' };
      return ALLOWED;
    },
  };
}

/** Loopback, this machine's names, and its present addresses; a café's router may assign new ones at any time. */
function isOwnName(host: string): boolean {
  if (host === 'localhost' || /^127\.\d+\.\d+\.\d+$/.test(host) || host === '::1') return true;
  const name = plain(hostname());
  if (host === name || host === `${name}.local` || host === name.split('.')[0]) return true;
  return Object.values(networkInterfaces())
    .flat()
    .some((address) => address && plain(address.address.split('%')[0]!) === host);
}

/** The name without its port; null if it is no name. */
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

function isOwnPage(origin: string, host: string, isSecure: boolean): boolean {
  try {
    const { protocol, hostname: name, port } = new URL(origin);
    const own = new URL(`${protocol}//${host}`);
    return name === own.hostname && port === own.port && (!isSecure || protocol === 'https:');
  } catch {
    return false;
  }
}

/** Lower case, without the brackets of an IPv6 address, without a final dot. */
const plain = (name: string): string =>
  name
    .toLowerCase()
    .replace(/^\[|\]$/g, '')
    .replace(/\.$/, '');
