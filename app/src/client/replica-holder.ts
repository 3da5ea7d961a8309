/** This device's copy of the log's state, shown whenever it changes. */
import { freshReplica, unsent, optimisticState, type Replica } from '@even-kettle/core/brew';
import type { BarView, ViewHolder } from './bar-view';

export type ReplicaHolder = {
  now: () => Replica;
  /** @param more what is shown in the same turn; the state too, where it is worked out already */
  become: (replica: Replica, more?: Partial<BarView>) => void;
};

export function holdReplica(view: ViewHolder): ReplicaHolder {
  let replica = freshReplica();
  return {
    now: () => replica,
    become: (next, more) => {
      replica = next;
      const state = more?.state ?? optimisticState(replica, view.now().book);
      view.show({ ...more, state, waiting: unsent(replica).length });
    },
  };
}
