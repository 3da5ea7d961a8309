/**
 * What the hands must do now, on every place but the Bar: one line, and one tap back.
 */
import { View } from 'react-native';
import { Touch } from '../ui/touch';
import { router } from 'expo-router';
import { forHands } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { useAgenda, useBar, useNow, useUnits } from '../client/bar-context';
import { inShort } from '../words/hands-words';
import { useDevice } from '../device/settings';
import { Badge } from '../ui/badge';
import { useTheme } from '../ui/use-theme';
import { Text } from '../ui/text';
import { RADIUS, TOUCH } from '../ui/theme';
import { WORDS } from './words';

/** Nothing is said of what is further off, milliseconds. */
const AHEAD_MS = 60_000;

/** The next thing that these hands have to do within a minute; null where there is none. */
export function useNextDeed(nowMs: number) {
  const { bar, plan } = useBar();
  const { hands } = useDevice();
  const all = useAgenda(nowMs);
  const own = forHands(all, plan, (bar?.hands ?? 1) > 1 ? hands : 'all');
  const item = own.find(({ asks }) => asks !== 'runs');
  return item && item.dueMs - nowMs <= AHEAD_MS ? item : null;
}

export function HandsStrip() {
  const theme = useTheme();
  const units = useUnits();
  const nowMs = useNow(500, 120);
  const item = useNextDeed(nowMs);
  if (!item) return null;
  const leftMs = item.dueMs - nowMs;
  const isNow = leftMs <= 0;
  const when = isNow ? 'now' : WORDS.inIt(showClock(Math.ceil(leftMs / 1000)));
  return (
    <Touch
      role="button"
      aria-label={WORDS.goToTheBar(item.station.name, inShort(item, units), when)}
      testID="hands-strip"
      onPress={() => router.navigate('/')}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        minHeight: TOUCH,
        marginHorizontal: 12,
        marginTop: 4,
        paddingHorizontal: 12,
        borderRadius: RADIUS,
        borderWidth: 1,
        borderColor: isNow ? theme.flame : theme.rim,
        backgroundColor: isNow ? theme.flame : theme.surface,
      }}
    >
      <Badge badge={item.order.badge} size={26} />
      <Text numberOfLines={1} bold style={{ flex: 1 }} color={isNow ? theme.onFlame : theme.ink}>
        {item.station.name}: {inShort(item, units)}
      </Text>
      <Text bold color={isNow ? theme.onFlame : theme.ink}>
        {when}
      </Text>
    </Touch>
  );
}

/** Beside the Bar's name among the places, while something is due there and these hands are elsewhere. */
export function BarMark() {
  const theme = useTheme();
  const nowMs = useNow(1000, 320);
  const item = useNextDeed(nowMs);
  if (!item || item.dueMs > nowMs) return null;
  return (
    <View
      testID="bar-mark"
      aria-hidden
      style={{
        position: 'absolute',
        top: 8,
        right: '50%',
        marginRight: -20,
        width: 10,
        height: 10,
        borderRadius: 5,
        backgroundColor: theme.flame,
      }}
    />
  );
}
