/**
 * Which queue an order stands in, and when it is fetched, where that queue asks for a time.
 */
import { View } from 'react-native';
import type { Queue } from '@even-kettle/core/plan';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Text } from '../../ui/text';
import { WORDS } from './words';

type Props = {
  queues: readonly Queue[];
  value: string;
  onChange: (id: string) => void;
  pickUp: string;
  onPickUp: (text: string) => void;
  isWrong: boolean;
};

export function QueueChoice({ queues, value, onChange, pickUp, onPickUp, isWrong }: Props) {
  const queue = queues.find(({ id }) => id === value);
  return (
    <View style={{ gap: 8 }}>
      <Choice
        name={WORDS.queue}
        value={value}
        onChange={onChange}
        options={queues.map((each) => ({ value: each.id, label: each.name, hint: promiseInWords(each) }))}
      />
      {queue?.promise === 'pick-up' ? (
        <>
          <Field
            label={WORDS.wantedAt}
            value={pickUp}
            onChangeText={onPickUp}
            maxLength={5}
            fault={isWrong}
            style={{ width: 130 }}
          />
          {isWrong ? (
            <Text role="alert" bold>
              {WORDS.sayTheTimeLike}
            </Text>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

/** What a queue promises, in a word or two. */
export const promiseInWords = ({ promise, withinMin = 10 }: Queue): string =>
  promise === 'within'
    ? WORDS.withinMinutes(withinMin)
    : promise === 'pick-up'
      ? WORDS.atATime
      : WORDS.asSoonAsPossible;

const DAY_MS = 86_400_000;

/** "14:20", or "1420": the next time that the clock shows that, bar milliseconds; null where it is no time of the day. */
export function readPickUp(text: string, nowMs: number): number | null {
  const found = /^([01]?\d|2[0-3]):?([0-5]\d)$/.exec(text.trim());
  if (!found) return null;
  const at = new Date(nowMs);
  at.setHours(Number(found[1]), Number(found[2]), 0, 0);
  return at.getTime() < nowMs ? at.getTime() + DAY_MS : at.getTime();
}
