/**
 * The stations: each with its vessel filled to its level, its clock and its order. A tap takes its next step to hand.
 */
import { Pressable, View, type DimensionValue } from 'react-native';
import {
  anchorMs,
  brewAt,
  levelOf,
  timelineAt,
  type BarState,
  type BrewState,
  type OrderState,
} from '@even-kettle/core/brew';
import { brewerById } from '@even-kettle/core/recipe';
import type { Station } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { Badge } from '../../ui/badge';
import { useLook } from '../../ui/look';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { Vessel } from '../../vessels/vessel';

type Props = {
  /** How many stand in a row. */
  columns: number;
  stations: Station[];
  state: BarState;
  nowMs: number;
  atHand: string | null;
  onTake: (brewId: string) => void;
};

export function Stations({ columns, stations, state, nowMs, atHand, onTake }: Props) {
  return (
    <View role="list" aria-label="Stations" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {stations.map((station) => {
        const brew = brewAt(state, station.id);
        const order = brew && state.orders[brew.orderId];
        return (
          <View
            key={station.id}
            role="listitem"
            style={{ width: `calc((100% - ${(columns - 1) * 8}px) / ${columns})` as DimensionValue }}
          >
            {brew && order ? (
              <Busy
                station={station}
                brew={brew}
                order={order}
                nowMs={nowMs}
                atHand={brew.id === atHand}
                onTake={onTake}
              />
            ) : (
              <Free station={station} />
            )}
          </View>
        );
      })}
    </View>
  );
}

type BusyProps = {
  station: Station;
  brew: BrewState;
  order: OrderState;
  nowMs: number;
  atHand: boolean;
  onTake: (brewId: string) => void;
};

function Busy({ station, brew, order, nowMs, atHand, onTake }: BusyProps) {
  const look = useLook();
  const zeroMs = anchorMs(brew, nowMs);
  const doing = stepInWords(brew, nowMs);
  const clock = zeroMs === null ? 'prep' : showClock(Math.max(0, nowMs - zeroMs) / 1000);
  return (
    <Pressable
      role="button"
      aria-label={`${station.name}, ${doing}, ${clock}. Take its next step`}
      onPress={() => onTake(brew.id)}
      style={({ pressed }) => tile(look, { atHand, pressed })}
    >
      <View style={{ position: 'absolute', top: 4, left: 4 }}>
        <Badge badge={order.badge} size={24} />
      </View>
      <Vessel method={brew.card.method} {...levelOf(brew, nowMs)} size={58} />
      <Text size="clock" testID={`clock-${station.id}`}>
        {clock}
      </Text>
      <Text size="small" bold numberOfLines={1}>
        {station.name}
      </Text>
      <Text size="small" quiet numberOfLines={1}>
        {doing}
      </Text>
    </Pressable>
  );
}

function Free({ station }: { station: Station }) {
  const look = useLook();
  return (
    <View style={[tile(look, { atHand: false, pressed: false }), { backgroundColor: 'transparent' }]}>
      <View style={{ opacity: 0.45 }}>
        <Vessel method={brewerById(station.brewerId)?.method ?? 'cone'} level={0} target={null} size={58} />
      </View>
      <Text size="clock" quiet>
        –
      </Text>
      <Text size="small" quiet numberOfLines={1}>
        {station.name}
      </Text>
      <Text size="small" quiet>
        free
      </Text>
    </View>
  );
}

const tile = (look: ReturnType<typeof useLook>, { atHand, pressed }: { atHand: boolean; pressed: boolean }) =>
  ({
    alignItems: 'center',
    paddingVertical: 8,
    paddingHorizontal: 4,
    borderRadius: RADIUS,
    borderWidth: atHand ? 2 : 1,
    margin: atHand ? 0 : 1,
    borderColor: atHand ? look.ink : look.rim,
    backgroundColor: pressed ? look.coolPale : look.surface,
  }) as const;

/** What the brew is at, in a few words: the step that runs, or what it waits for. */
function stepInWords(brew: BrewState, nowMs: number): string {
  const times = timelineAt(brew, nowMs);
  const current =
    times.find(({ status }) => status === 'running') ?? times.find(({ status }) => status === 'waiting');
  if (!current) return 'done';
  if (current.status === 'running') return current.step.name;
  if (current.step.kind === 'clean') return 'to be cleaned';
  return current.step.phase === 'brew' && current.startMs > nowMs ? 'resting' : current.step.name;
}
