/**
 * Posts this device's taps: in order, one batch after another, until none is left or the server cannot be reached.
 */
import { confirm, drop, unsent, type BarEvent } from '@even-kettle/core/brew';
import type { Api } from './api';
import { Refused } from './request';
import type { ViewHolder } from './bar-view';
import { firstTapWords } from './first-tap-words';
import type { Outbox } from './outbox';
import type { ReplicaHolder } from './replica-holder';
import type { Retries } from './retries';

const POST_AT_ONCE = 50;
/** Answers that are about the events themselves: they do not fit the state of the bar, or are not valid. */
const OF_THE_EVENTS: ReadonlySet<number> = new Set([400, 409, 413, 422]);

type Parts = {
  api: Api;
  outbox: Outbox;
  view: ViewHolder;
  replica: ReplicaHolder;
  retries: Retries;
  /** Loads the bar anew, since the server does not know this device any more. */
  reload: () => Promise<void>;
  isStreaming: () => boolean;
  isClosed: () => boolean;
};

/** @returns posts what waits; while that goes on, what comes meanwhile is posted with it */
export function openPosting(parts: Parts): () => Promise<void> {
  const { api, outbox, view, replica, retries, reload, isStreaming, isClosed } = parts;
  let posting: Promise<void> | null = null;
  let oneByOne = false;
  const nextBatch = () => unsent(replica.now()).slice(0, oneByOne ? 1 : POST_AT_ONCE);

  /** One event of a post was refused, so none of it was stored: that one goes, the rest is posted again. */
  async function dropRefused(batch: BarEvent[], { problem }: Refused): Promise<void> {
    const fault = problem.errors?.find((each) => each.eventId !== undefined);
    const ids = fault ? [fault.eventId!] : batch.map(({ id }) => id);
    const refused = batch.filter(({ id }) => ids.includes(id));
    replica.become(drop(replica.now(), ids));
    await outbox.remove(ids);
    view.tell(fault ? firstTapWords(refused[0]!, fault, view.now().state) : problem.detail);
  }

  /** Whether to go on. */
  async function post(batch: BarEvent[]): Promise<boolean> {
    try {
      const { seq } = await api.postEvents(batch);
      const ids = batch.map(({ id }) => id);
      replica.become(confirm(replica.now(), ids, seq));
      await outbox.remove(ids);
      retries.worked();
    } catch (error) {
      // Only a fault of the events themselves removes one of them; any other fault may pass.
      if (!(error instanceof Refused) || !OF_THE_EVENTS.has(error.status)) {
        view.show({ link: 'away' });
        if (error instanceof Refused && error.status === 401) void reload();
        else retries.later(drain);
        return false;
      }
      const named = error.problem.errors?.some(({ eventId }) => eventId !== undefined);
      // If the answer does not name the event at fault, each is posted separately, and only that one is dropped.
      if (!named && batch.length > 1) oneByOne = true;
      else await dropRefused(batch, error);
    }
    return true;
  }

  function drain(): Promise<void> {
    posting ??= (async () => {
      for (let batch = nextBatch(); batch.length > 0 && !isClosed(); batch = nextBatch())
        if (!(await post(batch))) return;
      oneByOne = false;
      // A failed request says nothing about the stream, which may be open all the while.
      if (isStreaming() && view.now().link !== 'live') view.show({ link: 'live' });
    })().finally(() => (posting = null));
    return posting;
  }
  return drain;
}
