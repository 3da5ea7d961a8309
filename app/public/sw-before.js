/**
 * Part of the service worker: the files of the app before this one are kept once more, since a page that is still open may yet
 * ask for a script of its own. A new worker takes over at once; the page stays as it is until it is loaded again.
 */
const BEFORE = 'even-kettle-before';

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const names = (await caches.keys()).filter((name) => name.includes('-precache-'));
      await caches.delete(BEFORE);
      const kept = await caches.open(BEFORE);
      for (const name of names) {
        const files = await caches.open(name);
        for (const request of await files.keys()) {
          if (!/^\/(_expo|assets)\//.test(new URL(request.url).pathname)) continue;
          const file = await files.match(request);
          if (file) await kept.put(request, file);
        }
      }
    })().catch(() => undefined),
  );
});
