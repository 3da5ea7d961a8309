/** One bar, served: its database, its planner, its devices, HTTP. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Logger } from 'pino';
import { version } from '../package.json';
import { openAccessDatabase } from './access/credential-rows';
import { openCredentials, type Credentials } from './access/credentials';
import { openGate } from './access/gate';
import { accessPolicy } from './access/hosts';
import type { ClockSources } from './bar-clock';
import { httpApp, type HttpOptions } from './http/app';
import { cupRouter } from './http/outlook-routes';
import { START_ANEW, type LastResort } from './last-resort';
import { networkFolder } from './network/names';
import { secretIn } from './network/secret';
import { cupPages } from './network/cup-page';
import { openNetwork, type Network } from './network/network';
import { workerQuoter } from './planning/quoter';
import { restoreCopy } from './copies/restore';
import { workerSolver } from './planning/solver';
import { workerJobs } from './planning/worker-jobs';
import { copiesFolder } from './copies/copy-files';
import type { Proof } from './copies/prove';
import { openBar, type BarServer } from './server';
import type { Settings } from './settings';
import { lockDatabase, openDatabase } from './store/database';

/** How long a connection of the database may keep the thread waiting for a lock, milliseconds. */
const BUSY_MS = 20;
/** A log of years is folded well within this, real milliseconds. */
const PROVE_WITHIN_MS = 600_000;

export type Served = {
  /** The port that it listens on, where the settings left that open. */
  port: number;
  bar: BarServer;
  /** Null where they could not be read, which only a server for its own machine goes on without. */
  credentials: Credentials | null;
  /** Null where it is served to its own machine alone. */
  network: Network | null;
  close: () => Promise<void>;
};

/** Over plain HTTP what answers is what listens. */
const alike = (http: Server) => ({ http, listening: http });

type ServeParts = {
  /** Clocks other than the system's, for tests that skip time. */
  clockSources?: Omit<ClockSources, 'isIdle'>;
  /** Called when a copy stands in the place of the database, and the server is closed. */
  restored?: () => void;
};

/** Whoever runs the server starts it again (`scripts/serve.mjs`, or the system). */
const endToStartAnew = () => process.exit(START_ANEW);

/**
 * @throws CannotStart where the database is in use; the error of the network where the port cannot be listened on
 */
// eslint-disable-next-line max-lines-per-function -- it puts the parts together, each by a line or a few
export async function serve(
  settings: Settings,
  logger: Logger,
  resort: LastResort,
  { clockSources, restored = endToStartAnew }: ServeParts = {},
): Promise<Served> {
  const unlock = lockDatabase(settings.databaseFile);
  const source = await openDatabase(settings.databaseFile, {
    busyMs: BUSY_MS,
    copiesTo: copiesFolder(settings.databaseFile),
  });
  resort.close(() => source.destroy());
  const folder = networkFolder(settings.databaseFile);
  // A disk that takes nothing just now must not keep the bar shut where nobody is paired.
  const credentials = await openAccessDatabase(join(folder, 'access.sqlite'))
    .then(openCredentials)
    .catch((error: unknown) => {
      if (settings.network) throw error;
      logger.warn({ err: error }, 'the keys of tills and bridges cannot be read');
      return null;
    });
  const proving = workerJobs<string, Proof>(new URL('./copy.worker.js', import.meta.url), 'copies');
  const bar = await openBar({
    source,
    solver: workerSolver(new URL('./plan.worker.js', import.meta.url)),
    quoter: workerQuoter(new URL('./quote.worker.js', import.meta.url), (error) =>
      logger.warn({ err: error }, 'an order from outside was taken without its times'),
    ),
    importWorker: new URL('./import.worker.js', import.meta.url),
    clockRate: settings.clockRate,
    ...(clockSources ? { clockSources } : {}),
    warn: (detail, message) => logger.warn(detail, message),
    rules: createHash('sha256')
      .update(readFileSync(fileURLToPath(import.meta.url)))
      .digest('hex'),
    fatal: resort.fatal,
    proveCopy: async (file) =>
      (await proving.ask(file, PROVE_WITHIN_MS)) ?? { ok: false, reason: 'The server was stopped.' },
    ...(settings.copiesTo === null ? {} : { copiesTo: settings.copiesTo }),
    guestSecret: secretIn(folder, 'guests.secret'),
  });
  credentials?.onEnded((id) => {
    bar.broadcaster.expel(id);
    bar.outlookStreams.expel(id);
    bar.devices.expel(id);
  });
  const access = accessPolicy([...settings.hosts, settings.networkName]);
  const gate = openGate(credentials, settings.network);
  const network = settings.network
    ? await openNetwork(settings, folder, access, logger, [cupPages(), cupRouter(bar)])
    : null;
  const { appDir, requestsPerMinute } = settings;
  const options: HttpOptions = {
    appDir,
    logger,
    version,
    requestsPerMinute,
    access,
    gate,
    pages: network?.pages ?? [cupPages()],
    ...(network ? { follow: (_request, key) => network.follow(key) } : {}),
    pairing: credentials && {
      credentials,
      addresses: () => network?.addresses() ?? [],
      fingerprint: () => network?.fingerprint() ?? null,
    },
  };
  const close = async () => {
    bar.broadcaster.close();
    bar.outlookStreams.close();
    const ended = new Promise((resolve) => listening.close(resolve));
    listening.closeAllConnections();
    await network?.close();
    await ended;
    await bar.close();
    await proving.close();
    await credentials?.close();
    unlock();
  };
  options.restore = async (file) => {
    await close();
    await restoreCopy(settings.databaseFile, file);
    restored();
  };
  const app = httpApp(bar, options);
  const { http, listening } = network?.serve(app) ?? alike(createServer(app));
  bar.devices.attach(http, access, gate);
  await new Promise<void>((resolve, reject) => {
    listening.once('error', reject);
    listening.listen(settings.port, settings.host, resolve);
  });
  listening.on('error', resort.fatal);
  const address = listening.address();
  const port = typeof address === 'object' && address ? address.port : settings.port;
  network?.listens(port);
  return {
    port,
    bar,
    credentials,
    network,
    close,
  };
}
