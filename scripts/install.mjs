/** Installs what is missing: packages, and for the tests a Chromium. Says so, and does nothing where all is there. */
import { existsSync } from 'node:fs';
import { digestOf, must, run, say, unlessDone } from './lib.mjs';

export const CHROMIUM = process.env.CHROMIUM_PATH || '/usr/bin/chromium';

export async function installPackages() {
  const digest = digestOf(['package-lock.json']);
  await unlessDone('node_modules/.even-kettle-installed', digest, async () => {
    say(
      'Installing packages. The first time takes about five minutes: the database driver is compiled here.',
    );
    await must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  });
}

export async function installChromium() {
  if (existsSync(CHROMIUM)) return;
  if (process.platform === 'linux' && process.getuid?.() === 0) {
    say('Installing Chromium for the end-to-end tests.');
    const quiet = { env: { DEBIAN_FRONTEND: 'noninteractive' } };
    await run('apt-get', ['update', '-qq'], quiet);
    await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], quiet);
  }
  if (existsSync(CHROMIUM)) return;
  console.error(
    `The end-to-end tests need Chromium at ${CHROMIUM}. Install the package “chromium”, or set CHROMIUM_PATH to where it is.`,
  );
  process.exit(1);
}
