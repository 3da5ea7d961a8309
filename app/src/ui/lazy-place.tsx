/**
 * Parts of the app that come when they are first needed, or a while after the first page, so that the bar is on screen
 * before the editor's machinery is.
 */
import { Suspense, lazy, type ComponentType } from 'react';
import { Loading } from './notice';
import { Page } from './page';

type Load = () => Promise<unknown>;
const waiting = new Set<Load>();
const RETRY_MS = 1500;

/** A place that is loaded by itself. While the server is away it is asked for again and again. */
export function lazyPlace<Props extends object>(what: string, load: () => Promise<ComponentType<Props>>) {
  waiting.add(load);
  const Lazy = lazy(async () => ({ default: await untilLoaded(load) }));
  return function Later(props: Props) {
    return (
      <Suspense
        fallback={
          <Page>
            <Loading what={what} height={320} />
          </Page>
        }
      >
        <Lazy {...props} />
      </Suspense>
    );
  };
}

async function untilLoaded<Part>(load: () => Promise<Part>): Promise<Part> {
  for (;;) {
    try {
      return await load();
    } catch {
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}

/** Fetches what has not been needed yet, so that it is here when the server is not. */
export const loadTheRest = (): void => {
  for (const load of waiting) void load().catch(() => undefined);
  waiting.clear();
};
