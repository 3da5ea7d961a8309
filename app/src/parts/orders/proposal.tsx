/**
 * A change of an order before it is made: what it does to the promised times, and Save or Cancel.
 */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { badgeOf, type BarEvent } from '@even-kettle/core/brew';
import type { Effect } from '@even-kettle/core/plan';
import { useBar, useHere } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { clockTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { Shifts } from './quote-line';
import { WORDS } from './words';

type Props = {
  /** What is said when it is saved, all of it at once; nothing as long as something is missing. */
  events: readonly NewEvent[];
  /** For Undo. */
  label: string;
  save?: string;
  onDone: () => void;
  onCancel: () => void;
};

export function Proposal({ events, label, save = WORDS.save, onDone, onCancel }: Props) {
  const act = useAct();
  const effect = useEffectOf(events);
  return (
    <View style={{ gap: 8 }} testID="proposal">
      {events.length > 0 ? <Effects effect={effect} /> : null}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button kind="bare" label={WORDS.cancel} onPress={onCancel} />
        {events.length > 0 ? (
          <Button
            kind="main"
            label={save}
            disabled={effect?.ok === false}
            onPress={() => {
              if (act(events, label)) onDone();
            }}
            style={{ flexGrow: 1 }}
          />
        ) : null}
      </Row>
    </View>
  );
}

/** What events would do to the times, where something else asks for the last word. */
export const EffectOf = ({ events }: { events: readonly NewEvent[] }) => (
  <Effects effect={useEffectOf(events)} />
);

function Effects({ effect }: { effect: Effect | null }) {
  const { state } = useBar();
  if (!effect) return <Text quiet>{WORDS.workingOutEffect}</Text>;
  if (!effect.ok)
    return (
      <Text bold role="alert">
        {effect.reason}
      </Text>
    );
  const lines = effect.changed.map(({ orderId, beforeS, afterS }) => {
    const order = state.orders[orderId];
    const letter = order ? badgeOf(order.badge).letter : WORDS.theNewOrder;
    const time = (atS: number) => clockTime(atS * 1000);
    if (afterS === null) return beforeS === null ? null : WORDS.nothingWaits(letter);
    if (beforeS === null) return WORDS.outAt(letter, time(afterS));
    return Math.abs(afterS - beforeS) < SAME_S
      ? WORDS.staysAt(letter, time(afterS))
      : WORDS.outAtWas(letter, time(afterS), time(beforeS));
  });
  return (
    <View role="status" testID="effect" style={{ gap: 6 }}>
      {lines.map((line) =>
        line === null ? null : (
          <Text key={line} bold>
            {line}
          </Text>
        ),
      )}
      <Shifts shifts={effect.shifts} otherwise={WORDS.othersStay} />
    </View>
  );
}

/** A time that moves by less is the same time, seconds. */
const SAME_S = 10;

const NOTHING = JSON.stringify([]);

/** What events would do if they were said now; null while it is being worked out. */
function useEffectOf(events: readonly NewEvent[]): Effect | null {
  const { planner, store, clock } = useHere();
  const { plan } = useBar();
  const asked = JSON.stringify(events);
  const [answer, setAnswer] = useState<{ asked: string; effect: Effect } | null>(null);
  useEffect(() => {
    const given = store.given();
    if (!given || asked === NOTHING) return undefined;
    const atMs = clock.nowMs();
    const said = (JSON.parse(asked) as NewEvent[]).map(
      (event, index) => ({ id: `asked-${index}`, atMs, ...event }) as BarEvent,
    );
    return planner.ask(given, { ask: 'effect', events: said }, (heard) => {
      if (heard.ask === 'effect') setAnswer({ asked, effect: heard.effect });
    });
  }, [asked, plan, planner, store, clock]);
  return answer?.asked === asked ? answer.effect : null;
}
