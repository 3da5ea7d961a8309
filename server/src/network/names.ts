/** What this machine is called on its networks, just now: a café's router may assign new addresses at any time. */
import { hostname, networkInterfaces } from 'node:os';
import { dirname, join } from 'node:path';

/** Addresses by which other machines find this one, those of version 4 first. */
export function ownAddresses(): string[] {
  const all = Object.values(networkInterfaces()).flatMap((found) => found ?? []);
  return all
    .filter(({ address }) => !isLoopback(address) && !address.startsWith('fe80:'))
    .sort((a, b) => a.family.localeCompare(b.family))
    .map(({ address }) => address);
}

export const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || host.startsWith('127.');

/** Every name and address that a certificate must hold, sorted. @param further those of the settings */
export function ownNames(further: readonly string[]): string[] {
  const host = hostname().toLowerCase();
  const names = ['localhost', host, `${host.split('.')[0]!}.local`, ...further];
  return [...new Set([...names, '127.0.0.1', '::1', ...ownAddresses()])].sort();
}

export const asUrlHost = (host: string): string => (host.includes(':') ? `[${host}]` : host);

type Where = { host: string; hosts: readonly string[]; networkName: string; network: boolean };

/** Where other machines find the bar, the likeliest first. */
export function networkAddresses({ host, hosts, networkName, network }: Where, port: number): string[] {
  const isEvery = host === '0.0.0.0' || host === '::' || (isLoopback(host) && !network);
  const names = [
    ...hosts,
    ...(isEvery ? ownAddresses() : [host]),
    ...(isLoopback(host) ? [] : [networkName]),
  ];
  return [...new Set(names)].map((name) => `https://${asUrlHost(name)}:${port}`);
}

/** Where the keys, certificates and devices of a bar's network are kept. */
export const networkFolder = (databaseFile: string): string => join(dirname(databaseFile), 'network');
