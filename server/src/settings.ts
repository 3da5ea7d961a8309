/**
 * The server's settings from the environment. A wrong value is refused at the start with a sentence that says what is right.
 */
import { CannotStart } from './cannot-start';

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
};

type Environment = Record<string, string | undefined>;

/** @throws Error that names the variable and says what would be right */
export function readSettings(env: Environment): Settings {
  return {
    port: wholeNumber(env, 'PORT', 4173, 0, 65535),
    host: env['HOST'] || '127.0.0.1',
    databaseFile: env['EVEN_KETTLE_DB'] || 'data/even-kettle.sqlite',
    clockRate: clockRate(env['BAR_CLOCK_RATE']),
    appDir: env['EVEN_KETTLE_APP_DIR'] || null,
    logLevel: env['LOG_LEVEL'] || 'info',
    requestsPerMinute: wholeNumber(env, 'REQUESTS_PER_MINUTE', 6000, 60, 1_000_000),
    hosts: (env['EVEN_KETTLE_HOSTS'] ?? '').split(/[\s,]+/).filter(Boolean),
  };
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
