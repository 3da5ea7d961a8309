/**
 * The server's settings from the environment. A wrong value is refused at the start with a sentence that says what is right.
 */
import { CannotStart } from './cannot-start';
import { isLoopback } from './network/names';

export type Settings = {
  port: number;
  host: string;
  /** The path of the SQLite file. */
  databaseFile: string;
  /** Bar seconds in one real second. */
  clockRate: number;
  /** The folder of the built app; null serves only the API. */
  appDir: string | null;
  logLevel: string;
  /** The most requests of one address in a minute. */
  requestsPerMinute: number;
  /** Further names and addresses of this server. */
  hosts: string[];
  /** Whether it is open to a network: over HTTPS alone, and to paired devices alone. */
  network: boolean;
  /** A further folder for the copies of the night; null for none. */
  copiesTo: string | null;
  /** The name that it has on the network, where that works. */
  networkName: string;
  /** A certificate from elsewhere, with its key; PEM files. */
  certificate: { certFile: string; keyFile: string } | null;
};

type Environment = Record<string, string | undefined>;

/** @throws Error that names the variable and says what would be right */
export function readSettings(env: Environment): Settings {
  const host = env['HOST'] || '127.0.0.1';
  const network = switched(env, 'EVEN_KETTLE_NETWORK') ?? !isLoopback(host);
  if (!network && !isLoopback(host))
    throw new CannotStart(
      `HOST is ${host}, which a network reaches, and EVEN_KETTLE_NETWORK is off. Leave EVEN_KETTLE_NETWORK out, so that devices are paired and talk over HTTPS.`,
    );
  return {
    port: wholeNumber(env, 'PORT', 4173, 0, 65535),
    host,
    databaseFile: env['EVEN_KETTLE_DB'] || 'data/even-kettle.sqlite',
    clockRate: clockRate(env['BAR_CLOCK_RATE']),
    appDir: env['EVEN_KETTLE_APP_DIR'] || null,
    logLevel: env['LOG_LEVEL'] || 'info',
    requestsPerMinute: wholeNumber(env, 'REQUESTS_PER_MINUTE', 6000, 60, 1_000_000),
    network,
    copiesTo: env['EVEN_KETTLE_COPIES'] || null,
    networkName: networkName(env['EVEN_KETTLE_NAME']),
    certificate: certificate(env),
    hosts: (env['EVEN_KETTLE_HOSTS'] ?? '').split(/[\s,]+/).filter(Boolean),
  };
}

function switched(env: Environment, name: string): boolean | null {
  const text = env[name];
  if (text === undefined || text === '') return null;
  if (text === 'on' || text === 'off') return text === 'on';
  throw new CannotStart(`${name} must be on or off, not “${text}”.`);
}

function networkName(text: string | undefined): string {
  const name = text || 'even-kettle.local';
  if (/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.local$/.test(name)) return name;
  throw new CannotStart(
    `EVEN_KETTLE_NAME must be a name that ends with .local, like even-kettle.local, in small letters, digits and dashes, not “${name}”.`,
  );
}

function certificate(env: Environment): Settings['certificate'] {
  const [certFile, keyFile] = [env['EVEN_KETTLE_CERT'], env['EVEN_KETTLE_CERT_KEY']];
  if (!certFile && !keyFile) return null;
  if (certFile && keyFile) return { certFile, keyFile };
  throw new CannotStart(
    'EVEN_KETTLE_CERT and EVEN_KETTLE_CERT_KEY name a certificate and its key: give both.',
  );
}

function wholeNumber(env: Environment, name: string, fallback: number, min: number, max: number): number {
  const text = env[name];
  if (text === undefined || text === '') return fallback;
  const value = Number(text);
  if (!Number.isInteger(value) || value < min || value > max) {
    throw new CannotStart(`${name} must be a whole number from ${min} to ${max}, not “${text}”.`);
  }
  return value;
}

function clockRate(text: string | undefined): number {
  if (text === undefined || text === '') return 1;
  const value = Number(text);
  if (!(value >= 0.1 && value <= 1000))
    throw new CannotStart(`BAR_CLOCK_RATE must be a number from 0.1 to 1000, not “${text}”.`);
  return value;
}
