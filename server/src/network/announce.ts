/** Says the bar's name on its network, where that works: it is found by its addresses in any case. */
import { Bonjour } from 'bonjour-service';

/** @returns what ends it */
export function announce(name: string, port: number, failed: (error: unknown) => void): () => Promise<void> {
  try {
    const bonjour = new Bonjour({}, failed);
    bonjour.publish({ name: `Even Kettle at ${name}`, type: 'https', port, host: name });
    return () => new Promise((resolve) => bonjour.unpublishAll(() => bonjour.destroy(() => resolve())));
  } catch (error) {
    failed(error);
    return () => Promise.resolve();
  }
}
