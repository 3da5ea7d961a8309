/**
 * Up next: the next attended steps with their countdowns. A tap takes one of them to the hands card now.
 */
import { memo } from 'react';
import { View } from 'react-native';
import { Touch } from '../../ui/touch';
import { SOON_MS, forHands, type Hands } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { CHANGE_SHOWN_MS, useAgenda, useBar, useNow, useUnits } from '../../client/bar-context';
import { becauseInWords } from '../../words/plan-words';
import { inShort } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';
import { RADIUS, TOUCH } from '../../ui/theme';
import { shiftInWords } from '../orders/quote-line';
import { AllergySign } from '../wishes';
import { WORDS } from './words';

type Props = {
  /** Which pair's steps, and which of them the hands card shows already. */
  hands: Hands;
  atHand: string | null;
  most: number;
  /** Whether nothing below may move: then the reason for a changed plan takes the place of the last line. */
  keepsHeight?: boolean;
  onTake: (brewId: string) => void;
};

/** A moment after the clocks have turned: the hands card comes first. */
const AFTER_MS = 50;

/** Drawn anew once a second, in slices, not with every tick of the hands card. */
export const UpNext = memo(function UpNext({ hands, atHand, most, keepsHeight, onTake }: Props) {
  const nowMs = useNow(1000, AFTER_MS);
  const { plan, change } = useBar();
  const items = forHands(useAgenda(nowMs), plan, hands)
    .filter(({ key, asks }) => key !== atHand && asks !== 'runs')
    .slice(0, most);
  const theme = useTheme();
  const units = useUnits();
  // What is planned otherwise than it was a moment ago is shown as that.
  const moved = new Map(
    change && nowMs - change.atMs < CHANGE_SHOWN_MS
      ? change.moves

          .filter(
            ({ step, fromS, toS }) =>
              fromS !== null && fromS !== toS && items.some(({ key }) => key === step),
          )
          .map(({ step, fromS, toS }) => [step, toS - fromS!] as const)
      : [],
  );
  if (items.length === 0) return null;
  const shown = keepsHeight && moved.size > 0 ? items.slice(0, most - 1) : items;
  return (
    <View
      style={{
        backgroundColor: theme.surface,
        borderColor: theme.rim,
        borderWidth: 1,
        borderRadius: RADIUS,
        overflow: 'hidden',
      }}
    >
      {moved.size > 0 ? (
        <Text size="small" bold style={{ paddingHorizontal: 12, paddingTop: 8 }} role="status">
          {becauseInWords(change!)}
        </Text>
      ) : null}
      <View role="list" aria-label={WORDS.upNext}>
        {shown.map((item, index) => {
          const leftMs = item.dueMs - nowMs;
          const byS = moved.get(item.key);
          return (
            <View key={item.key} role="listitem">
              <Touch
                role="button"
                aria-label={WORDS.inTakeItNow(
                  item.station.name,
                  inShort(item, units),
                  showClock(Math.max(0, Math.ceil(leftMs / 1000))),
                )}
                onPress={() => onTake(item.brewId)}
                style={({ pressed }) => ({
                  minHeight: TOUCH,
                  flexDirection: 'row',
                  alignItems: 'center',
                  gap: 10,
                  paddingHorizontal: 12,
                  borderTopWidth: index === 0 ? 0 : 1,
                  borderColor: theme.rim,
                  backgroundColor: pressed ? theme.coolPale : leftMs <= SOON_MS ? theme.soon : 'transparent',
                })}
              >
                <Text size="clock" style={{ minWidth: theme.isAcross ? 78 : 58, textAlign: 'right' }}>
                  {leftMs <= 0 ? 'now' : showClock(Math.ceil(leftMs / 1000))}
                </Text>
                <Badge badge={item.order.badge} size={28} />
                <AllergySign cup={item.cup} />
                <Text numberOfLines={1} style={{ flex: 1 }}>
                  {item.station.name}: {inShort(item, units)}
                </Text>
                {byS === undefined ? null : (
                  <Text size="small" bold>
                    {shiftInWords(byS)}
                  </Text>
                )}
              </Touch>
            </View>
          );
        })}
      </View>
    </View>
  );
});
