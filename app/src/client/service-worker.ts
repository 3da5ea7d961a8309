/**
 * The installed shell: a service worker keeps the app's own files, so that it opens with the server away. What the bar
 * knows is kept apart from it (`bar/kept.ts`).
 */

/** Browsers offer it in a secure context only: over HTTPS, or on the machine itself. */
export const canInstall = (): boolean =>
  typeof navigator !== 'undefined' && 'serviceWorker' in navigator && globalThis.isSecureContext !== false;

export function installServiceWorker(): void {
  if (!canInstall() || process.env['NODE_ENV'] !== 'production') return;
  navigator.serviceWorker.register('/sw.js').catch(() => {
    // A browser set to keep nothing: the app works on, and needs the server to be opened.
  });
}
