/**
 * The bar's own authority, and the certificate that it gives this machine for its present names and addresses. Both are made
 * anew by themselves; devices trust the authority, so that a new certificate asks nothing of them.
 */
import { X509Certificate } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { CannotStart } from '../cannot-start';

const DAY_MS = 86_400_000;
/** Browsers refuse a certificate that is good for longer than 398 days. */
const LEAF_DAYS = 397;
const AUTHORITY_DAYS = 3650;
/** A certificate is made anew when it has no more days than this left. */
const RENEW_DAYS = 30;
/** A device whose clock is a little behind must not find it too young. */
const BEFORE_MS = DAY_MS;

type Pair = { cert: string; key: string };

export type Certificates = {
  /** What the server shows, with the authority behind it. */
  tls: () => Pair;
  /** The authority, as text; null for a certificate from elsewhere. */
  authority: () => string | null;
  /** SHA-256 of the authority. */
  fingerprint: () => string | null;
  /** Until when the server's certificate is good, real milliseconds since 1970. */
  untilMs: () => number;
  /** Makes the certificate anew where it is due, or where names or addresses have changed. Tells whether it did. */
  refresh: () => Promise<boolean>;
};

/**
 * @param folder where they are kept; its files are for their owner alone
 * @param names the names and addresses that this machine has at the moment
 */
export async function openCertificates(
  folder: string,
  names: () => string[],
  nowMs: () => number = Date.now,
): Promise<Certificates> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
  const isSound = (cert: X509Certificate, days: number) =>
    Date.parse(cert.validTo) - nowMs() > days * DAY_MS && Date.parse(cert.validFrom) <= nowMs();
  let authority = readPair(folder, 'authority');
  if (!authority || !isSound(new X509Certificate(authority.cert), RENEW_DAYS)) {
    authority = await makeAuthority(nowMs());
    writePair(folder, 'authority', authority);
  }
  const root = authority;
  const isGood = (pair: Pair): boolean => {
    const cert = new X509Certificate(pair.cert);
    return (
      isSound(cert, RENEW_DAYS) &&
      cert.verify(new X509Certificate(root.cert).publicKey) &&
      names().every((name) => (isIP(name) ? cert.checkIP(name) : cert.checkHost(name)) !== undefined)
    );
  };
  let leaf = readPair(folder, 'server');
  const refresh = async () => {
    if (leaf && isGood(leaf)) return false;
    leaf = await makeLeaf(root, names(), nowMs());
    writePair(folder, 'server', leaf);
    return true;
  };
  await refresh();
  return {
    // Each of them ends without a line's end.
    tls: () => ({ cert: `${leaf!.cert.trim()}\n${root.cert.trim()}\n`, key: leaf!.key }),
    authority: () => root.cert,
    fingerprint: () => new X509Certificate(root.cert).fingerprint256,
    untilMs: () => Date.parse(new X509Certificate(leaf!.cert).validTo),
    refresh,
  };
}

/** A certificate from elsewhere, read again when its file has changed. @throws CannotStart where it cannot be read */
export function givenCertificates(certFile: string, keyFile: string): Certificates {
  const read = (): Pair => {
    try {
      const cert = readFileSync(certFile, 'utf8');
      new X509Certificate(cert);
      return { cert, key: readFileSync(keyFile, 'utf8') };
    } catch (error) {
      throw new CannotStart(
        `The certificate at ${certFile} with its key at ${keyFile} cannot be read: ${(error as Error).message}. Both must be PEM files.`,
      );
    }
  };
  let pair = read();
  return {
    tls: () => pair,
    authority: () => null,
    fingerprint: () => null,
    untilMs: () => Date.parse(new X509Certificate(pair.cert).validTo),
    refresh: () => {
      const next = read();
      const isNew = next.cert !== pair.cert;
      pair = next;
      return Promise.resolve(isNew);
    },
  };
}

async function makeAuthority(nowMs: number): Promise<Pair> {
  const made = await generate([{ name: 'commonName', value: `Even Kettle on ${hostname()}` }], {
    ...KEYS,
    notBeforeDate: new Date(nowMs - BEFORE_MS),
    notAfterDate: new Date(nowMs + AUTHORITY_DAYS * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  return { cert: made.cert, key: made.private };
}

async function makeLeaf(ca: Pair, names: readonly string[], nowMs: number): Promise<Pair> {
  const made = await generate([{ name: 'commonName', value: 'Even Kettle' }], {
    ...KEYS,
    ca,
    notBeforeDate: new Date(nowMs - BEFORE_MS),
    notAfterDate: new Date(nowMs + (LEAF_DAYS - 1) * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: names.map((name) => (isIP(name) ? { type: 7, ip: name } : { type: 2, value: name })),
      },
    ],
  });
  return { cert: made.cert, key: made.private };
}

const KEYS = { keyType: 'ec', curve: 'P-256', algorithm: 'sha256' } as const;

function readPair(folder: string, name: string): Pair | null {
  const [cert, key] = filesOf(folder, name);
  if (!existsSync(cert) || !existsSync(key)) return null;
  try {
    const pair = { cert: readFileSync(cert, 'utf8'), key: readFileSync(key, 'utf8') };
    new X509Certificate(pair.cert);
    return pair;
  } catch {
    // A damaged one is made anew.
    return null;
  }
}

function writePair(folder: string, name: string, { cert, key }: Pair): void {
  const [certFile, keyFile] = filesOf(folder, name);
  for (const [file, text, mode] of [
    [keyFile, key, 0o600],
    [certFile, cert, 0o644],
  ] as const) {
    writeFileSync(`${file}.new`, text, { mode });
    renameSync(`${file}.new`, file);
  }
}

const filesOf = (folder: string, name: string): [cert: string, key: string] => [
  join(folder, `${name}.pem`),
  join(folder, `${name}-key.pem`),
];
