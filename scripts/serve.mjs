/**
 * Runs the built server, and starts it again where it ends by itself: at once the first time, later after longer and
 * longer waits. Ends with it where it was stopped, or where a person has to mend something first.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './lib.mjs';

/** The server's own code for: starting again is of no use. */
const NOT_AGAIN = 78;
/** The server's own code for: start me anew at once, a copy was restored. */
const START_ANEW = 75;
const LONGEST_WAIT_MS = 30_000;
/** After this long a server counts as well again. */
const WELL_MS = 60_000;

/** @param main the server's script; another one for a test of this */
export function serve(env, main = join(root, 'server/dist/main.js')) {
  let waitMs = 500;
  let stopped = false;
  let child = null;
  const start = () => {
    const startedMs = Date.now();
    child = spawn(process.execPath, [main], {
      stdio: 'inherit',
      env: { EVEN_KETTLE_APP_DIR: join(root, 'app/dist'), LOG_LEVEL: 'warn', ...process.env, ...env },
    });
    child.once('exit', (code) => {
      if (stopped || code === 0 || code === NOT_AGAIN) process.exit(code ?? 0);
      if (code === START_ANEW) return start();
      if (Date.now() - startedMs > WELL_MS) waitMs = 500;
      console.error(`The server ended by itself. It starts again in ${waitMs / 1000} s.`);
      setTimeout(() => (stopped ? process.exit(0) : start()), waitMs);
      waitMs = Math.min(LONGEST_WAIT_MS, waitMs * 2);
    });
  };
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      if (stopped || child?.exitCode !== null) process.exit(0);
      stopped = true;
      child.kill(signal);
    });
  start();
}
