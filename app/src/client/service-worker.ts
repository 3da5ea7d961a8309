/**
 * The installed shell: a service worker keeps the app's own files, so that it opens with the server away. What the bar knows is
 * kept apart from it (`offline-snapshot.ts`). A new worker takes over at once; the page stays what it is until it is loaded
 * again, which is never done in mid-step.
 */
/** Browsers offer it in a secure context only: over HTTPS, or on the machine itself. */
export const canInstall = (): boolean =>
  typeof navigator !== 'undefined' && 'serviceWorker' in navigator && globalThis.isSecureContext !== false;

/** A newer app is on this device: the page has the one before. */
let isBehind = false;
let registration: ServiceWorkerRegistration | undefined;
const listeners = new Set<() => void>();

/** A tablet stands on one page for weeks, so it is asked for a new version by itself, milliseconds. */
const LOOK_AGAIN_MS = 3_600_000;

export function installServiceWorker(): void {
  if (!canInstall() || process.env['NODE_ENV'] !== 'production') return;
  navigator.serviceWorker.register('/sw.js').then(watch, () => {
    // A browser set to keep nothing: the app works on, and needs the server to be opened.
  });
}

function watch(registered: ServiceWorkerRegistration | undefined): void {
  // A browser that is told to have none answers with nothing.
  if (!registered) return;
  registration = registered;
  const { serviceWorker } = navigator;
  // The first worker of all takes charge of a page that it did not serve; only a later one leaves the page behind.
  let served = serviceWorker.controller !== null;
  serviceWorker.addEventListener('controllerchange', () => {
    isBehind ||= served;
    served = true;
    for (const listener of listeners) listener();
  });
  setInterval(appUpdate.look, LOOK_AGAIN_MS);
}

/** A new worker loads pages anew that are too old to answer it (`public/sw-before.js`); this one does so by itself. */
export function answerTheWorker(): void {
  if (!canInstall()) return;
  navigator.serviceWorker.addEventListener('message', ({ ports }) => ports[0]?.postMessage('yes'));
  navigator.serviceWorker.startMessages();
}

/** A newer version of the app than this page's. */
export const appUpdate = {
  isReady: (): boolean => isBehind,
  /** Whether no service worker answers for this page, so that loading it asks the server. */
  isFromNetwork: (): boolean => !canInstall() || navigator.serviceWorker.controller === null,
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
  /** Asks for it. The server may be away; it is asked again later. */
  look: (): void => void registration?.update().catch(() => undefined),
  /** The page is loaded anew, by the newer version where there is one. */
  take: (): void => window.location.reload(),
};
