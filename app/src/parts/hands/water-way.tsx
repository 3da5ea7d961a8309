/**
 * What a step needs, in words; for a pour with where its water goes.
 */
import { memo, useMemo } from 'react';
import { View } from 'react-native';
import { pathsOf } from '@even-kettle/core/brew';
import type { AgendaItem } from '@even-kettle/core/plan';
import { inWords, showMass, type Units } from '@even-kettle/core/units';
import { useAtTurns } from '../../client/bar-context';
import { useDevice } from '../../device/settings';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { BedFromAbove } from '../../vessels/bed';
import { PATH_WORDS, mannerInWords } from '../../words/path-words';
import { WORDS } from './words';

/** Large enough to be read at arm's length, small enough that the stations below stay whole. */
const PATH_SIZE = 74;

/** What the step needs, in words; for a pour its path beside them, moving while it is poured. */
export const WaterWay = memo(function WaterWay({
  item,
  detail,
  units,
}: {
  item: AgendaItem;
  detail: string;
  units: Units;
}) {
  const { pouringHand } = useDevice();
  const parts = useMemo(() => (item.asks === 'cue' ? [] : pathsOf(item.step)), [item.asks, item.step]);
  const { begunMs, at } = useAtTurns((nowMs) => {
    const begun = item.asks === 'start' || item.fromMs > nowMs ? null : item.fromMs;
    const forS = begun === null ? 0 : (nowMs - begun) / 1000;
    return { begunMs: begun, at: parts.findIndex(({ toS }) => forS < toS) };
  });
  const now = parts.at(at);
  if (!now)
    return (
      <Text size="small" testID="detail">
        {detail}
      </Text>
    );
  const next = parts[parts.indexOf(now) + 1];
  return (
    <Row style={{ alignItems: 'flex-start', gap: 12 }}>
      <BedFromAbove parts={parts} hand={pouringHand} begunMs={begunMs} size={PATH_SIZE} />
      <View style={{ flex: 1, minWidth: 0, gap: 2 }}>
        <Text bold testID="path-words">
          {PATH_WORDS[now.path]}
        </Text>
        <Text size="small" testID="path-manner">
          {[mannerInWords(now), next ? WORDS.fromReading(untilWhen(item.step, now, units), next.path) : '']
            .filter(Boolean)
            .join('; ')}
        </Text>
        <Text size="small" testID="detail">
          {detail}
        </Text>
      </View>
    </Row>
  );
});

/** When the next part of a pour begins: at a reading, or where nothing weighs it, after so many seconds. */
const untilWhen = (
  { byEye }: AgendaItem['step'],
  { toG, toS }: { toG?: number; toS: number },
  units: Units,
): string => (byEye || toG === undefined ? `${Math.round(toS)} s` : inWords(showMass(toG, units, 'water')));
