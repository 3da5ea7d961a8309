/** A bar as it is started for a network, over HTTPS with devices that are paired; on this machine's own address. */
import { spawn } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { Browser, BrowserContext, Page } from '@playwright/test';
import { freePort, madeOnce } from './bar';

const root = fileURLToPath(new URL('../..', import.meta.url));

export type NetworkBar = {
  url: string;
  /** The link of the terminal, which makes a device the lead's. */
  leadLink: string;
  /** A device that knows nothing of the bar yet. */
  device: (size?: { width: number; height: number }) => Promise<Page>;
  close: () => Promise<void>;
};

export async function openNetworkBar(browser: Browser): Promise<NetworkBar> {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-network-'));
  const port = await freePort();
  const env = {
    ...process.env,
    PORT: String(port),
    EVEN_KETTLE_NETWORK: 'on',
    EVEN_KETTLE_DB: join(folder, 'bar.sqlite'),
    LOG_LEVEL: 'error',
  };
  copyFileSync(madeOnce('bench'), env.EVEN_KETTLE_DB);
  const run = `import { serve } from ${JSON.stringify(pathToFileURL(join(root, 'scripts/serve.mjs')).href)}; serve({});`;
  const server = spawn(process.execPath, ['--input-type=module', '-e', run], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const leadLink = await new Promise<string>((resolve, reject) => {
    let said = '';
    server.once('exit', () => reject(new Error(`The server did not start: ${said}`)));
    server.stdout.on('data', (data: Buffer) => {
      said += data.toString();
      const link = /^https:\S+\/pair#\S+$/m.exec(said);
      if (link) resolve(link[0]);
    });
  });
  const contexts: BrowserContext[] = [];
  return {
    url: `https://127.0.0.1:${port}`,
    leadLink,
    device: async (viewport = { width: 390, height: 844 }) => {
      const context = await browser.newContext({
        ignoreHTTPSErrors: true,
        viewport,
        locale: 'en-GB',
        serviceWorkers: 'block',
      });
      contexts.push(context);
      return context.newPage();
    },
    close: async () => {
      await Promise.all(contexts.map((context) => context.close()));
      server.removeAllListeners('exit');
      const gone = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGTERM');
      await gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
