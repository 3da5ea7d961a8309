/**
 * The board in the room, read across the hall: what is ready now, and what is to come with its minute, by badge and queue.
 * Nothing on it moves but what has changed.
 */
import { useCallback, useMemo } from 'react';
import { ScrollView, View, useWindowDimensions } from 'react-native';
import type { Board, BoardOrder } from '@even-kettle/core/plan';
import { useHere } from '../../client/bar-context';
import { useBoard } from '../../client/use-board';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Heading, Text } from '../../ui/text';
import { FACE, RADIUS, WIDE } from '../../ui/theme';
import { THEME_CHOICES, useTheme, useThemeChoice } from '../../ui/use-theme';
import { ROW, fitOf, type Fit } from './fit';
import { WORDS } from './words';

const CLOCK = new Intl.DateTimeFormat(undefined, { hour: 'numeric', minute: '2-digit' });
/** A time of day in as few signs as it needs: in a room everybody knows whether it is morning. */
const timeOfDay = (barMs: number): string =>
  CLOCK.formatToParts(barMs)
    .filter(({ type }) => type !== 'dayPeriod')
    .map(({ value }) => value)
    .join('')
    .trim();

export function BoardPlace() {
  const theme = useTheme();
  const { store } = useHere();
  const { width, height } = useWindowDimensions();
  const shutOut = useCallback(() => void store.reload(), [store]);
  const { board, heardMs, isAway } = useBoard(shutOut);
  const isWide = width >= WIDE;
  const shorter = Math.min(width, height);
  const gap = Math.max(12, shorter / 45);
  const head = Math.max(22, shorter / 22);
  const fit = useMemo(
    () =>
      board && isWide
        ? fitOf(board, (width - 3 * gap) / 2, height - 3 * gap - 3.2 * head, shorter)
        : { line: Math.max(52, shorter / 7), most: Infinity },
    [board, isWide, width, height, shorter, gap, head],
  );
  const part = { board, line: fit.line, most: fit.most, isWide };
  return (
    <ScrollView
      style={{ backgroundColor: theme.bg }}
      contentContainerStyle={{ padding: gap, gap, ...(isWide ? { height } : {}) }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 16 }}>
        <Heading style={{ flex: 1, fontSize: head, lineHeight: head * 1.35 }}>
          {board?.barName ?? WORDS.board}
        </Heading>
        <LookButton />
        {heardMs === null ? null : (
          <Text style={{ fontSize: head, lineHeight: head * 1.35 }}>{timeOfDay(heardMs)}</Text>
        )}
      </View>
      {isAway && heardMs !== null ? (
        <Text role="alert" bold style={{ fontSize: head * 0.8, lineHeight: head * 1.1 }}>
          {WORDS.noNews(timeOfDay(heardMs))}
        </Text>
      ) : null}
      {board ? (
        <View style={{ flex: isWide ? 1 : undefined, flexDirection: isWide ? 'row' : 'column', gap }}>
          <Part
            {...part}
            board={board}
            title={WORDS.readyNow}
            none={WORDS.nothingReady}
            orders={board.ready}
            isReady
          />
          <Part
            {...part}
            board={board}
            title={WORDS.toCome}
            none={WORDS.nothingToCome}
            orders={board.coming}
          />
        </View>
      ) : (
        <Text>{WORDS.loading}</Text>
      )}
    </ScrollView>
  );
}

/** A screen in the hall has no Bench: its look is chosen here. */
function LookButton() {
  const { choice, choose } = useThemeChoice();
  const next = THEME_CHOICES[(THEME_CHOICES.indexOf(choice) + 1) % THEME_CHOICES.length]!;
  return (
    <Button
      kind="bare"
      icon="bench"
      label=""
      says={WORDS.anotherLook(WORDS.looks[next])}
      onPress={() => choose(next)}
    />
  );
}

type PartProps = Fit & {
  title: string;
  none: string;
  board: Board;
  orders: readonly BoardOrder[];
  isReady?: boolean;
  isWide: boolean;
};

function Part({ title, none, board, orders, line, most, isReady = false, isWide }: PartProps) {
  const theme = useTheme();
  const queues = board.queues.length > 1 ? board.queues : [{ id: null, name: '' }];
  const shown = orders.slice(0, most);
  return (
    <View
      role="region"
      aria-label={title}
      style={{
        ...(isWide ? { flex: 1 } : {}),
        overflow: 'hidden',
        padding: line * 0.25,
        borderRadius: RADIUS,
        borderWidth: Math.max(1, theme.rimWidth),
        borderColor: isReady ? theme.ink : theme.rim,
        backgroundColor: theme.surface,
      }}
    >
      <Text role="heading" aria-level={2} bold style={{ fontSize: line * 0.42, lineHeight: line * 0.7 }}>
        {title}
      </Text>
      {orders.length === 0 ? (
        <Text quiet style={{ fontSize: line * 0.32, lineHeight: line * 0.5 }}>
          {none}
        </Text>
      ) : null}
      {queues.map(({ id, name }) => {
        const mine = shown.filter(({ queueId }) => id === null || queueId === id);
        if (mine.length === 0) return null;
        return (
          <View key={id ?? ''} style={{ marginTop: line * 0.15 }}>
            {name === '' ? null : (
              <Text quiet style={{ fontSize: line * 0.3, lineHeight: line * 0.45 }}>
                {name}
              </Text>
            )}
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: line * 0.5 }}>
              {mine.map((order) => (
                <Line key={order.badgeNumber} order={order} line={line} isReady={isReady} />
              ))}
            </View>
          </View>
        );
      })}
      {orders.length > shown.length ? (
        <Text quiet style={{ fontSize: line * 0.4, lineHeight: line * 0.6 }}>
          {WORDS.further(orders.length - shown.length)}
        </Text>
      ) : null}
    </View>
  );
}

function Line({ order, line, isReady }: { order: BoardOrder; line: number; isReady: boolean }) {
  const { badgeNumber, cups, name, ready, readyMs } = order;
  return (
    <View
      testID="board-order"
      style={{ flexDirection: 'row', alignItems: 'center', gap: line * 0.25, height: line * ROW }}
    >
      <Badge badge={badgeNumber} size={line} />
      <View>
        {isReady ? null : (
          <Text style={{ fontFamily: FACE.bold, fontSize: line * 0.56, lineHeight: line * 0.66 }}>
            {readyMs === null ? WORDS.inLine : timeOfDay(readyMs)}
          </Text>
        )}
        {name === undefined ? null : (
          <Text
            bold
            style={{ fontSize: line * (isReady ? 0.45 : 0.3), lineHeight: line * (isReady ? 0.6 : 0.4) }}
          >
            {name}
          </Text>
        )}
        {!isReady && ready > 0 ? (
          <Text quiet style={{ fontSize: line * 0.26, lineHeight: line * 0.34 }}>
            {WORDS.someReady(ready, cups)}
          </Text>
        ) : null}
      </View>
    </View>
  );
}
