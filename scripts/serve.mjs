/** Runs the built server in this process's place, and ends with it. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './lib.mjs';

export function serve(env) {
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    stdio: 'inherit',
    env: { EVEN_KETTLE_APP_DIR: join(root, 'app/dist'), LOG_LEVEL: 'warn', ...process.env, ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.once('exit', (code) => process.exit(code ?? 0));
}
