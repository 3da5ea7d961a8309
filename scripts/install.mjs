/** Installs what is missing: packages, and for the tests a Chromium. Says so, and does nothing where all is there. */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { must, root, run, say } from './lib.mjs';

export const CHROMIUM = process.env.CHROMIUM_PATH || '/usr/bin/chromium';

/**
 * Installs what is missing of the packages, whoever installed the others: somebody's own `npm ci` is as good as ours.
 * @param all what the tests need too; left out, only what builds and runs the bar
 */
export async function installPackages({ all = false } = {}) {
  if (missingPackages({ all }).length === 0) return;
  say(
    `Installing packages. The first time takes ${all ? 'four to five' : 'three to four'} minutes: the database driver is compiled here.`,
  );
  const omit = all ? [] : ['--omit=dev'];
  await must('npm', ['ci', ...omit, '--no-audit', '--no-fund', '--loglevel=error']);
}

/** The paths of the packages that the lock file names and that are not there as it names them. */
export function missingPackages({ all }) {
  const wanted = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')).packages;
  const known = join(root, 'node_modules/.package-lock.json');
  const there = existsSync(known) ? JSON.parse(readFileSync(known, 'utf8')).packages : {};
  const missing = Object.entries(wanted).filter(
    ([path, { version, dev, devOptional, optional, link }]) =>
      path.includes('node_modules/') &&
      !link &&
      !optional &&
      // What is wanted by an optional package and by the tests is one of the two.
      !devOptional &&
      (all || !dev) &&
      there[path]?.version !== version,
  );
  return missing.map(([path]) => path).concat(existsSync(join(root, DRIVER)) ? [] : [DRIVER]);
}
/** The database driver's own part, which npm compiles on this machine: no finished one is downloaded. */
const DRIVER = 'node_modules/better-sqlite3/build/Release/better_sqlite3.node';

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
