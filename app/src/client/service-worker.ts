/**
 * The installed shell: a service worker keeps the app's own files, so that it opens with the server away. What the bar
 * knows is kept apart from it (`offline-snapshot.ts`). A new version of the app waits until somebody takes it.
 */

/** Browsers offer it in a secure context only: over HTTPS, or on the machine itself. */
export const canInstall = (): boolean =>
  typeof navigator !== 'undefined' && 'serviceWorker' in navigator && globalThis.isSecureContext !== false;

let waiting: ServiceWorker | null = null;
/** Another page of this device has taken the new version: this one has the old page, and its later scripts may be gone. */
let isBehind = false;
const listeners = new Set<() => void>();

function found(worker: ServiceWorker | null): void {
  waiting = worker;
  isBehind = worker === null;
  for (const listener of listeners) listener();
}

/** A tablet stands on one page for weeks, so it is asked for a new version by itself, milliseconds. */
const LOOK_AGAIN_MS = 3_600_000;

export function installServiceWorker(): void {
  if (!canInstall() || process.env['NODE_ENV'] !== 'production') return;
  navigator.serviceWorker.register('/sw.js').then(watch, () => {
    // A browser set to keep nothing: the app works on, and needs the server to be opened.
  });
}

/** A worker that comes while another serves this page brings a new version. */
function watch(registration: ServiceWorkerRegistration | undefined): void {
  // A browser that is told to have none answers with nothing.
  if (!registration) return;
  const { serviceWorker } = navigator;
  if (registration.waiting && serviceWorker.controller) found(registration.waiting);
  // The first worker of all takes charge of a page that it did not serve; only a later one leaves the page behind.
  let served = serviceWorker.controller !== null;
  serviceWorker.addEventListener('controllerchange', () => {
    if (served) found(null);
    served = true;
  });
  // The server may be away; it is asked again an hour later.
  setInterval(() => void registration.update().catch(() => undefined), LOOK_AGAIN_MS);
  registration.addEventListener('updatefound', () => {
    const coming = registration.installing;
    coming?.addEventListener('statechange', () => {
      if (coming.state === 'installed' && navigator.serviceWorker.controller) found(coming);
    });
  });
}

/** A new version of the app that waits to be taken. */
export const appUpdate = {
  isReady: (): boolean => waiting !== null || isBehind,
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
  /** The page is loaded anew by the new version. */
  take: (): void => {
    if (!waiting) return window.location.reload();
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), {
      once: true,
    });
    waiting.postMessage({ type: 'SKIP_WAITING' });
  },
};
