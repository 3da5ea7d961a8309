/**
 * What a step needs, in words; for a pour with where its water goes.
 */
import { useMemo } from 'react';
import { View } from 'react-native';
import { pathsOf } from '@even-kettle/core/brew';
import type { AgendaItem } from '@even-kettle/core/plan';
import { inWords, showMass, type Units } from '@even-kettle/core/units';
import { useDevice } from '../../device/settings';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { BedFromAbove } from '../../vessels/bed';
import { PATH_WORDS, mannerInWords } from '../../words/path-words';
import { WORDS } from './words';

/** Large enough to be read at arm's length, small enough that the stations below stay whole. */
const PATH_SIZE = 74;

/** What the step needs, in words; for a pour its path beside them, moving while it is poured. */
export function WaterWay({
  item,
  nowMs,
  detail,
  units,
}: {
  item: AgendaItem;
  nowMs: number;
  detail: string;
  units: Units;
}) {
  const { pouringHand } = useDevice();
  const parts = useMemo(() => (item.asks === 'cue' ? [] : pathsOf(item.step)), [item.asks, item.step]);
  if (parts.length === 0)
    return (
      <Text size="small" testID="detail">
        {detail}
      </Text>
    );
  const begunMs = item.asks === 'start' || item.fromMs > nowMs ? null : item.fromMs;
  const forS = begunMs === null ? 0 : (nowMs - begunMs) / 1000;
  const now = parts.find(({ toS }) => forS < toS) ?? parts.at(-1);
  const next = parts[parts.indexOf(now!) + 1];
  return (
    <Row style={{ alignItems: 'flex-start', gap: 12 }}>
      <BedFromAbove parts={parts} hand={pouringHand} begunMs={begunMs} size={PATH_SIZE} />
      <View style={{ flex: 1, minWidth: 0, gap: 2 }}>
        <Text bold testID="path-words">
          {PATH_WORDS[now!.path]}
        </Text>
        <Text size="small" testID="path-manner">
          {[mannerInWords(now!), next ? WORDS.fromReading(untilWhen(item.step, now!, units), next.path) : '']
            .filter(Boolean)
            .join('; ')}
        </Text>
        <Text size="small" testID="detail">
          {detail}
        </Text>
      </View>
    </Row>
  );
}

/** When the next part of a pour begins: at a reading, or where nothing weighs it, after so many seconds. */
const untilWhen = (
  { byEye }: AgendaItem['step'],
  { toG, toS }: { toG?: number; toS: number },
  units: Units,
): string => (byEye || toG === undefined ? `${Math.round(toS)} s` : inWords(showMass(toG, units, 'water')));
