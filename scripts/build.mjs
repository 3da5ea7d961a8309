/** Builds the server (a bundle for plain Node) and the app (a static export). What has not changed is not built again. */
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { bin, digestOf, must, root, say, unlessDone } from './lib.mjs';
import { installPackages } from './install.mjs';

export async function build() {
  await buildServer();
  await buildApp();
}

export async function buildServer() {
  const inputs = [
    'core/src',
    'core/package.json',
    'server/src',
    'server/package.json',
    'server/build.mjs',
    'package-lock.json',
  ];
  await unlessDone('server/.built', digestOf(inputs), async () => {
    say('Building the server.');
    await must(process.execPath, ['server/build.mjs']);
  });
}

export async function buildApp() {
  const inputs = ['core/src', 'core/package.json', 'app', 'package-lock.json', 'scripts/build.mjs'];
  await unlessDone('app/.built', digestOf(inputs), async () => {
    say('Building the app. The first time takes about two minutes.');
    await must(bin('expo'), ['export', '--platform', 'web', '--output-dir', 'dist'], {
      cwd: join(root, 'app'),
      env: {
        CI: '1',
        EXPO_OFFLINE: '1',
        EXPO_NO_TELEMETRY: '1',
        NODE_ENV: 'production',
      },
    });
  });
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  await installPackages();
  await build();
}
