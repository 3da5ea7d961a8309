/**
 * Putting the app on the device's own screen, where its browser offers that.
 */
type InstallOffer = Event & { prompt: () => Promise<unknown> };

let offer: InstallOffer | null = null;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** Keeps the browser's offer until somebody wants it. Called once, as the page comes up. */
export function listenForInstall(): void {
  globalThis.addEventListener?.('beforeinstallprompt', (event) => {
    event.preventDefault();
    offer = event as InstallOffer;
    tell();
  });
  globalThis.addEventListener?.('appinstalled', () => {
    offer = null;
    tell();
  });
}

export const appInstall = {
  isOffered: (): boolean => offer !== null,
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
  ask: async (): Promise<void> => {
    await offer?.prompt();
    offer = null;
    tell();
  },
};
