/**
 * The live stream: what happens on the bar, as it happens.
 */
import { addressWith } from '@even-kettle/core/contract/addresses';
import { isLiveMessage, type LiveMessages, type LiveName } from './shapes';

export type Link = 'live' | 'connecting' | 'away';
export type LiveHandlers = {
  /** The data of each message. `beat` is the server's clock a moment ago, because the network has a delay. */
  on: { [Name in LiveName]: (message: LiveMessages[Name]) => void };
  onLink: (link: Link) => void;
  /** Something was missed or cannot be read: the bar has to be loaded again. */
  onLost: () => void;
};

/** The server beats every 4 s. A stream that is silent for longer than this is dead, whatever the browser thinks. */
const SILENCE_MS = 13_000;

/** Opens the stream after a place in the log; the browser resumes it by itself after short breaks. Gives what closes it. */
export function openLive(base: string, after: number, { on, onLink, onLost }: LiveHandlers): () => void {
  const stream = new EventSource(`${base}${addressWith('live', {}, { after })}`);
  let heardMs = performance.now();
  const hear = <Name extends LiveName>(name: Name) =>
    stream.addEventListener(name, ({ data }: MessageEvent<string>) => {
      heardMs = performance.now();
      const message: unknown = JSON.parse(data);
      if (isLiveMessage(name, message)) return on[name](message);
      close();
      onLink('away');
      onLost();
    });
  for (const name of Object.keys(on) as LiveName[]) hear(name);
  const silence = setInterval(() => {
    if (performance.now() - heardMs < SILENCE_MS) return;
    close();
    onLink('away');
    onLost();
  }, SILENCE_MS / 4);
  const close = () => {
    clearInterval(silence);
    stream.close();
  };
  stream.onopen = () => onLink('live');
  stream.onerror = () => {
    onLink('away');
    // Closed for good: the server refused the place, or the browser gave up. The bar has to be loaded anew.
    if (stream.readyState !== EventSource.CLOSED) return;
    close();
    onLost();
  };
  return close;
}
