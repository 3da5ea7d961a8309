/**
 * What an order would cost the bar: when it is out, and which others come out at another time for it.
 */
import { View } from 'react-native';
import type { InQueue } from '@even-kettle/core/brew';
import {
  overdueBrews,
  shareNow,
  timesOf,
  type Overdue,
  type Queue,
  type Quote,
  type OrderDelay,
} from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { useBar, useNow } from '../../client/bar-context';
import { clockTime } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from './words';

/** So much later or sooner, in a word. */
export const shiftInWords = (byS: number): string =>
  `${showClock(Math.abs(byS))} ${byS > 0 ? 'later' : 'sooner'}`;

/** What an order waits for where a tap is long overdue. */
export const overdueInWords = ({ stationName, byMs }: Overdue): string =>
  WORDS.overdue(stationName, Math.round(byMs / 60_000));

/** Which orders come out at another time, each by its badge. */
export function Shifts({ shifts, otherwise }: { shifts: OrderDelay[]; otherwise: string }) {
  const { state } = useBar();
  const known = shifts.filter(({ orderId }) => state.orders[orderId]);
  if (known.length === 0) return <Text quiet>{otherwise}</Text>;
  return (
    <Row style={{ flexWrap: 'wrap', rowGap: 6, columnGap: 14 }}>
      {known.map(({ orderId, byS }) => (
        <Row key={orderId} style={{ gap: 6 }}>
          <Badge badge={state.orders[orderId]!.badge} size={24} />
          <Text bold={byS > 0} quiet={byS < 0}>
            {shiftInWords(byS)}
          </Text>
        </Row>
      ))}
    </Row>
  );
}

/** Cups of one order that come out further apart than this are told of before it is taken, seconds. */
export const APART_S = 120;

/** A change of the order that brings its cups closer together: what it is, and how far apart they then are, seconds. */
export type Closer = { what: string; apartS: number };

const FIGURE = { fontSize: 44, lineHeight: 48 } as const;

/** The time that is said to the guest, large, and the price that the others pay. */
export function QuoteLine({
  quote,
  closer,
  queue,
  standsIn = {},
}: {
  quote: Quote | undefined;
  closer: Closer | null;
  queue?: Queue | undefined;
  standsIn?: InQueue;
}) {
  const nowMs = useNow(1000);
  const { bar, state } = useBar();
  // It takes the room that the time will take, or the button below would move away from under a thumb.
  if (!quote)
    return (
      <View style={{ gap: 6 }}>
        <Row style={{ alignItems: 'baseline' }}>
          <Text>{WORDS.readyIn}</Text>
          <Text size="figure" style={FIGURE} aria-hidden>
            {WORDS.timeToCome}
          </Text>
        </Row>
        <Text quiet>{WORDS.workingOutReadyLabel}</Text>
        <Text aria-hidden> </Text>
      </View>
    );
  if (!quote.ok) return <Text quiet>{quote.reason}</Text>;
  const leftS = Math.max(0, quote.readyS - nowMs / 1000);
  const [overdue] = overdueBrews(state, nowMs);
  return (
    <View testID="quote" style={{ gap: 6 }}>
      <Row style={{ alignItems: 'baseline' }}>
        <Text>{WORDS.readyIn}</Text>
        <Text size="figure" style={FIGURE} testID="quoted">
          {showClock(Math.ceil(leftS))}
        </Text>
      </Row>
      <Text quiet>
        {WORDS.aboutBy(
          clockTime(quote.readyS * 1000),
          clockTime(
            timesOf(quote.readyS, nowMs / 1000, standsIn, bar ? shareNow(state, bar) : undefined).promisedMs,
          ),
        )}
      </Text>
      {overdue ? <Text bold>{WORDS.onlyIfSeenTo(overdueInWords(overdue))}</Text> : null}
      {queue?.promise === 'within' && leftS > 60 * (queue.withinMin ?? 10) ? (
        <Text bold>{WORDS.laterThanTheQueue(queue.name, queue.withinMin ?? 10)}</Text>
      ) : null}
      {quote.apartS > APART_S ? (
        <Text bold testID="apart">
          {WORDS.cupsComeApart(
            showClock(quote.apartS),
            closer ? WORDS.apart(closer.what, showClock(closer.apartS)) : WORDS.noCloserMethod,
          )}
        </Text>
      ) : null}
      <Shifts shifts={quote.shifts.filter(({ byS }) => byS > 0)} otherwise={WORDS.noOrderWaits} />
    </View>
  );
}
