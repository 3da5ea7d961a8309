/**
 * Part of the service worker: the files of the app before this one are kept once more, since a page that is still open may yet
 * ask for a script of its own. A new worker takes over at once; the page stays as it is until it is loaded again, which it does at
 * a pause. A page that is too old to know of that is loaded anew here: with a newer server it may be blank, or hide an allergy.
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

/** How long a page has to say that it looks after itself, milliseconds. */
const ANSWER_MS = 2000;

self.addEventListener('activate', (event) => {
  event.waitUntil(
    (async () => {
      await self.clients.claim();
      // Not waited for: a page is loaded by this worker, and that only once it is active.
      for (const page of await self.clients.matchAll({ type: 'window' })) void loadIfItCannotTell(page);
    })().catch(() => undefined),
  );
});

async function loadIfItCannotTell(page) {
  const { port1, port2 } = new MessageChannel();
  const answers = new Promise((resolve) => {
    port1.onmessage = () => resolve(true);
    setTimeout(() => resolve(false), ANSWER_MS);
  });
  page.postMessage({ ask: 'looks after itself' }, [port2]);
  if (!(await answers)) await page.navigate(page.url).catch(() => undefined);
}
