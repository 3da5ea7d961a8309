/** The bar on a network: its certificate, its name, and what is said there without encryption. */
import { createServer as createPlain, type RequestListener } from 'node:http';
import { createServer as createSecure, type Server as HttpsServer } from 'node:https';
import type { Router } from 'express';
import type { Logger } from 'pino';
import type { AccessPolicy } from '../access/hosts';
import type { Settings } from '../settings';
import { announce } from './announce';
import { givenCertificates, openCertificates } from './certificate';
import { asUrlHost, isLoopback, networkAddresses, ownNames } from './names';
import { onePort, type OnePort } from './one-port';
import { plainHttp } from './plain-http';
import { trustRoutes } from './trust-page';

/** How often it looks whether the certificate is due, or names and addresses have changed. */
const LOOK_MS = 60_000;

export type Network = {
  /** Where other machines find the bar, the likeliest first. */
  addresses: () => string[];
  fingerprint: () => string | null;
  certificateUntilMs: () => number;
  /** Pages that are served over HTTPS besides the app's. */
  pages: Router[];
  /** The address by which a guest follows the order with a key: of plain HTTP, since a guest's phone does not know the authority. */
  follow: (key: string) => string;
  /** What answers over HTTPS, and what listens, for encrypted and plain connections on one port. */
  serve: (app: RequestListener) => { http: HttpsServer; listening: OnePort };
  /** Says which port it is, once that is known. */
  listens: (port: number) => void;
  close: () => Promise<void>;
};

/** @param open what is served without encryption as well */
export async function openNetwork(
  settings: Settings,
  folder: string,
  access: AccessPolicy,
  logger: Logger,
  open: readonly Router[],
): Promise<Network> {
  const { certificate, networkName, hosts, host } = settings;
  const names = () => ownNames([...hosts, networkName]);
  const certificates = certificate
    ? givenCertificates(certificate.certFile, certificate.keyFile)
    : await openCertificates(folder, names);
  const isHere = isLoopback(host);
  let port = settings.port;
  let silence: () => Promise<void> = () => Promise.resolve();
  let secure: HttpsServer | null = null;
  const urlOf = (name: string) => `https://${asUrlHost(name)}:${port}`;
  const look = async () => {
    if (await certificates.refresh()) secure?.setSecureContext(certificates.tls());
  };
  const looking = setInterval(
    () =>
      void look().catch((error: unknown) =>
        logger.warn({ err: error }, 'the certificate could not be made anew'),
      ),
    LOOK_MS,
  );
  looking.unref();
  const pages = [
    ...open,
    trustRoutes(certificates, (host) => urlOf(new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, ''))),
  ];
  return {
    addresses: () => networkAddresses(settings, port),
    fingerprint: certificates.fingerprint,
    certificateUntilMs: certificates.untilMs,
    pages,
    follow: (key) => {
      const [address = ''] = networkAddresses(settings, port);
      return `${certificate ? address : address.replace(/^https:/, 'http:')}/cup/${key}`;
    },
    serve: (app) => {
      secure = createSecure(certificates.tls(), app);
      return { http: secure, listening: onePort(createPlain(plainHttp(access, pages)), secure) };
    },
    listens: (listensOn) => {
      port = listensOn;
      if (isHere) return;
      silence = announce(networkName, port, (error) =>
        logger.warn(
          { err: error },
          `the name ${networkName} could not be announced; the addresses work in any case`,
        ),
      );
    },
    close: async () => {
      clearInterval(looking);
      await silence();
    },
  };
}
