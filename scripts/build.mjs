/** Builds the server (a bundle for plain Node) and the app (a static export). What has not changed is not built again. */
import { pathToFileURL } from 'node:url';
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
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
    'server/bench',
    'server/soak',
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
    await must(bin('expo'), ['export', '--platform', 'web', '--output-dir', 'dist', '--max-workers', '2'], {
      cwd: join(root, 'app'),
      env: {
        CI: '1',
        EXPO_OFFLINE: '1',
        EXPO_NO_TELEMETRY: '1',
        NODE_ENV: 'production',
      },
    });
    await makeOfflineShell();
    await compressScripts();
  });
}

/** A service worker that keeps the app's own files, so that it opens with the server away. */
async function makeOfflineShell() {
  const { generateSW } = await import('workbox-build');
  const dist = join(root, 'app/dist');
  const { count, warnings } = await generateSW({
    globDirectory: dist,
    globPatterns: ['**/*.{html,js,css,woff2,ico,png,svg,json,webmanifest}'],
    globIgnores: ['sw.js', 'sw-before.js'],
    swDest: join(dist, 'sw.js'),
    mode: 'production',
    sourcemap: false,
    inlineWorkboxRuntime: true,
    maximumFileSizeToCacheInBytes: 8e6,
    // These carry a hash of their content in their names.
    dontCacheBustURLsMatching: /^(_expo|assets)\//,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/(api|cup|trust)(\/|$)/],
    // A new version is there at the next load of the page, however old the page is; none is loaded anew by this in mid-brew.
    skipWaiting: true,
    clientsClaim: true,
    cleanupOutdatedCaches: true,
    importScripts: ['sw-before.js'],
    runtimeCaching: [
      {
        urlPattern: /\/(_expo|assets)\//,
        handler: 'CacheFirst',
        options: { cacheName: 'even-kettle-before' },
      },
    ],
  });
  for (const warning of warnings) console.warn(warning);
  say(`The app keeps ${count} files to open without the server.`);
}

/** Compressed once here, as far as it goes, for networks on which every second of a first visit counts. */
async function compressScripts() {
  const dist = join(root, 'app/dist');
  const page = readFileSync(join(dist, 'index.html'), 'utf8');
  const compressed = promisify(brotliCompress);
  const scripts = readdirSync(join(dist, '_expo'), { recursive: true })
    .filter((name) => name.endsWith('.js'))
    .map((name) => `_expo/${name}`);
  await Promise.all(
    scripts.map(async (file) => {
      const text = readFileSync(join(dist, file));
      // Scripts that come later are compressed a little less, and five times as quickly.
      const quality = page.includes(file) ? 11 : 9;
      const params = {
        [constants.BROTLI_PARAM_QUALITY]: quality,
        [constants.BROTLI_PARAM_SIZE_HINT]: text.length,
      };
      writeFileSync(join(dist, `${file}.br`), await compressed(text, { params }));
    }),
  );
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  await installPackages();
  await build();
}
