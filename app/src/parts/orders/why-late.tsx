/**
 * Why an order is out when it is: what its brews wait for, back to what is under way; and what would help, each tried.
 */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { nextBrewId, queueOf, type OrderState } from '@even-kettle/core/brew';
import type { Help, Link } from '@even-kettle/core/plan';
import { useBar, useHere } from '../../client/bar-context';
import { helpInWords, linkInWords } from '../../words/plan-words';
import { clockTime } from '../../words/hands-words';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';
import { promiseInWords } from './queue-choice';
import { WORDS } from './words';

/** What the order's queue has to do with its time. */
function QueuesPart({ order }: { order: OrderState }) {
  const { bar } = useBar();
  const { queueId, pickUpMs } = queueOf(order);
  const queue = bar?.queues?.find(({ id }) => id === queueId);
  if (pickUpMs !== undefined) return <Text>{WORDS.standsBefore(clockTime(pickUpMs))}</Text>;
  return queue ? <Text>{WORDS.whichPromises(queue.name, promiseInWords(queue))}</Text> : null;
}

export function WhyThen({ order }: { order: OrderState }) {
  const theme = useTheme();
  const { planner, store } = useHere();
  const { plan, bar, state, book } = useBar();
  const [found, setFound] = useState<{ chain: Link[]; helps: Help[] } | null>(null);
  const waiting = order.cups
    .filter(({ status }) => status === 'waiting')
    .map(nextBrewId)
    .join(' ');
  useEffect(() => {
    const given = store.given();
    if (!given) return undefined;
    const question = { ask: 'why' as const, orderId: order.id, brewIds: waiting.split(' ').filter(Boolean) };
    return planner.ask(given, question, (answer) => {
      if (answer.ask === 'why') setFound(answer);
    });
  }, [order.id, waiting, plan, planner, store]);
  if (!bar) return null;
  const known = { state, bench: bar, book };
  return (
    <View
      testID="why"
      style={{ gap: 4, borderTopWidth: 1, borderColor: theme.rim, paddingTop: 8, paddingBottom: 4 }}
    >
      <QueuesPart order={order} />
      {found === null ? <Text quiet>{WORDS.tryingWhatWouldHelp}</Text> : null}
      {found?.chain.map((link) => (
        <Text key={link.brewId}>{linkInWords(link, known)}</Text>
      ))}
      {found && found.chain.length === 0 ? <Text>{WORDS.nothingHoldsItUp}</Text> : null}
      {found?.helps.map((help) => (
        <Text key={JSON.stringify(help)} bold>
          {helpInWords(help, order, known.bench)}
        </Text>
      ))}
      {found && found.helps.length === 0 ? <Text quiet>{WORDS.nothingBringsItSooner}</Text> : null}
    </View>
  );
}
