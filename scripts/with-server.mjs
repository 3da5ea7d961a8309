/** A built server on a free port with a database of its own, for the scripts that look at or measure the running thing. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './lib.mjs';

/** @param fresh a database that nobody has opened yet */
export async function withServer({ demo = false, fresh = false, rate = 1 }, work) {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-'));
  const port = await freePort();
  const env = {
    ...process.env,
    PORT: String(port),
    BAR_CLOCK_RATE: String(rate),
    EVEN_KETTLE_DB: join(folder, 'bar.sqlite'),
    EVEN_KETTLE_APP_DIR: join(root, 'app/dist'),
    LOG_LEVEL: 'warn',
  };
  const bench = demo ? {} : { DEMO_BAR: 'plain', DEMO_EVENTS: 'none' };
  if (!fresh)
    spawnSync(process.execPath, [join(root, 'server/dist/demo.js')], {
      env: { ...env, ...bench },
      stdio: 'ignore',
    });
  const server = spawn(process.execPath, [join(root, 'server/dist/main.js')], { env, stdio: 'inherit' });
  try {
    const url = `http://127.0.0.1:${port}`;
    for (let tries = 0; ; tries += 1) {
      if (
        await fetch(`${url}/api/health`)
          .then((answer) => answer.ok)
          .catch(() => false)
      )
        break;
      if (tries > 200) throw new Error('The server did not come up in 10 s.');
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return await work(url, server.pid);
  } finally {
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

const freePort = () =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
