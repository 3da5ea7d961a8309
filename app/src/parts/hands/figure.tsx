/**
 * The number to read across the bar.
 */
import { View } from 'react-native';
import type { AgendaItem } from '@even-kettle/core/plan';
import { showClock, showMass, type Units } from '@even-kettle/core/units';
import { useAtTurns, useScale } from '../../client/bar-context';
import { Text } from '../../ui/text';
import { cueClock } from './cue';
import { WORDS } from './words';

type FigureProps = {
  item: AgendaItem;
  asked: { figure: string; unit: string };
  stopAtG: number | null;
  units: Units;
};

/** While something is watched or runs, the time instead. Beside it what the scale reads. */
export function Figure({ item, asked, stopAtG, units }: FigureProps) {
  const scale = useScale(item.station.id);
  const timed = item.asks === 'cue' || item.asks === 'runs';
  const clock = useAtTurns((nowMs) => (timed ? clockOf(item, nowMs) : ''));
  const shown = timed ? { figure: clock, unit: '' } : asked;
  const reads =
    scale?.connected && item.step.kind === 'pour' && !timed
      ? showMass(Math.max(0, scale.massG), units, 'water')
      : null;
  return (
    // On the narrowest of phones the second figure stands below rather than be cut off.
    <View
      style={{
        flexGrow: 1,
        flexShrink: 1,
        flexDirection: 'row',
        flexWrap: 'wrap',
        alignItems: 'baseline',
        columnGap: 8,
      }}
      aria-hidden
    >
      <Text size="figure" testID="figure" style={{ fontVariant: ['tabular-nums'], letterSpacing: -1 }}>
        {shown.figure}
      </Text>
      <Text size="unit">{shown.unit}</Text>
      {reads ? (
        <Beside label={WORDS.scale} figure={reads.figure} testID="reading" />
      ) : stopAtG !== null ? (
        <Beside label={WORDS.stopAt} figure={showMass(stopAtG, units, 'water').figure} testID="stop-at" />
      ) : null}
    </View>
  );
}

/** The second figure: smaller, and told by its label. */
function Beside({ label, figure, testID }: { label: string; figure: string; testID: string }) {
  return (
    <View
      style={{
        flexGrow: 1,
        flexDirection: 'row',
        alignItems: 'baseline',
        justifyContent: 'flex-end',
        gap: 8,
      }}
    >
      <Text size="small" quiet>
        {label}
      </Text>
      <Text size="second" testID={testID}>
        {figure}
      </Text>
    </View>
  );
}

/** What is left of a step that runs by the clock; else how long a cue has been waited for, or the brew has run. */
function clockOf(item: AgendaItem, nowMs: number): string {
  if (item.asks === 'runs')
    return showClock(Math.max(0, Math.ceil((item.dueMs + item.step.durationS * 1000 - nowMs) / 1000)));
  const { fromMs } = cueClock(item, nowMs) ?? { fromMs: nowMs };
  return showClock(Math.max(0, nowMs - fromMs) / 1000);
}
