/**
 * The stations: each with its vessel filled to its level, its clock and its order. A tap takes its next step to hand.
 */
import { memo } from 'react';
import { View, type DimensionValue } from 'react-native';
import { Touch } from '../../ui/touch';
import {
  anchorMs,
  brewAt,
  levelOf,
  timelineAt,
  type BrewState,
  type OrderState,
} from '@even-kettle/core/brew';
import { brewerOf, type Station } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { useAtTurns, useBar, useNow } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { capital } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { Ticking } from '../../client/ticking';
import { Vessel } from '../../vessels/vessel';
import { AllergySign } from '../../parts/wishes';
import { WORDS } from '../../parts/hands/words';

type Props = {
  /** How many stand in a row. */
  columns: number;
  stations: Station[];
  atHand: string | null;
  onTake: (brewId: string) => void;
};

/** Levels move slowly: each is drawn once a second, one after another, so that no moment has them all to draw. */
const FIRST_MS = 90;
const APART_MS = 70;

export const Stations = memo(function Stations({ columns, stations, atHand, onTake }: Props) {
  const { state } = useBar();
  return (
    <View role="list" aria-label={WORDS.stations} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {stations.map((station, index) => {
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
                phaseMs={(FIRST_MS + index * APART_MS) % 1000}
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
});

type BusyProps = {
  station: Station;
  brew: BrewState;
  order: OrderState;
  phaseMs: number;
  atHand: boolean;
  onTake: (brewId: string) => void;
};

const Busy = memo(function Busy({ station, brew, order, phaseMs, atHand, onTake }: BusyProps) {
  const theme = useTheme();
  const { doing, cueId, cue } = useAtTurns((nowMs) => {
    const awaited = awaitedCue(brew, nowMs);
    return { doing: stepInWords(brew, nowMs), cueId: awaited?.id, cue: awaited?.cue };
  }, 1000);
  const cup = order.cups.find(({ cupId }) => cupId === brew.cupId);
  return (
    <View style={tile(theme, { atHand })}>
      <Touch
        role="button"
        aria-label={WORDS.takeItsNextStep(station.name, doing)}
        onPress={() => onTake(brew.id)}
        style={({ pressed }) => ({
          alignItems: 'center',
          alignSelf: 'stretch',
          backgroundColor: pressed ? theme.coolPale : 'transparent',
        })}
      >
        <View style={{ position: 'absolute', top: 4, left: 4 }}>
          <Badge badge={order.badge} size={24} />
        </View>
        {cup ? (
          <View style={{ position: 'absolute', top: 6, right: 6 }}>
            <AllergySign cup={cup} />
          </View>
        ) : null}
        {/* The button takes the place of what it needs, so that no tile grows. */}
        <Level brew={brew} phaseMs={phaseMs} size={cue ? 34 : 58} />
        <BrewClock brew={brew} />
        <Text size="small" bold numberOfLines={1}>
          {station.name}
        </Text>
        {cue ? null : (
          <Text size="small" quiet numberOfLines={1}>
            {doing}
          </Text>
        )}
      </Touch>
      {cue && cueId ? <CueButton brew={brew} stepId={cueId} cue={cue} stationName={station.name} /> : null}
    </View>
  );
});

const Level = memo(function Level({
  brew,
  phaseMs,
  size,
}: {
  brew: BrewState;
  phaseMs: number;
  size: number;
}) {
  const nowMs = useNow(1000, phaseMs);
  return <Vessel method={brew.card.method} {...levelOf(brew, nowMs)} size={size} />;
});

/** A cue that is watched for ends when it is seen, whatever the hands card asks for. */
function CueButton({
  brew,
  stepId,
  cue,
  stationName,
}: {
  brew: BrewState;
  stepId: string;
  cue: string;
  stationName: string;
}) {
  const act = useAct();
  const seen = () =>
    act(
      [
        {
          type: 'step-done',
          brewId: brew.id,
          stepId,
        },
      ],
      capital(cue),
    );
  return (
    <Button
      label={capital(cue)}
      says={WORDS.at(capital(cue), stationName)}
      onPress={seen}
      testID={`cue-${brew.stationId}`}
      style={{ alignSelf: 'stretch', paddingHorizontal: 2 }}
    />
  );
}

/** The cue that ends the passive step that runs, where one does. */
function awaitedCue(brew: BrewState, nowMs: number): { id: string; cue: string } | null {
  const running = timelineAt(brew, nowMs).find(({ status }) => status === 'running')?.step;
  return running && !running.attended && running.end === 'cue' && running.cue
    ? { id: running.id, cue: running.cue }
    : null;
}

/** All clocks of the bar turn together. */
const BrewClock = memo(function BrewClock({ brew }: { brew: BrewState }) {
  return (
    <Ticking
      size="clock"
      testID={`clock-${brew.stationId}`}
      reads={(nowMs) => {
        const zeroMs = anchorMs(brew, nowMs);
        return zeroMs === null ? 'prep' : showClock(Math.max(0, nowMs - zeroMs) / 1000);
      }}
    />
  );
});

function Free({ station }: { station: Station }) {
  const { bar } = useBar();
  const theme = useTheme();
  return (
    <View style={[tile(theme, { atHand: false }), { backgroundColor: 'transparent' }]}>
      <View style={{ opacity: 0.45 }}>
        <Vessel
          method={brewerOf(bar ?? {}, station.brewerId)?.method ?? 'cone'}
          level={0}
          target={null}
          size={58}
        />
      </View>
      <Text size="clock" quiet>
        –
      </Text>
      <Text size="small" quiet numberOfLines={1}>
        {station.name}
      </Text>
      <Text size="small" quiet>
        {WORDS.freeLabel}
      </Text>
    </View>
  );
}

const tile = (theme: ReturnType<typeof useTheme>, { atHand }: { atHand: boolean }) =>
  ({
    alignItems: 'center',
    paddingVertical: 8,
    paddingHorizontal: 4,
    borderRadius: RADIUS,
    borderWidth: atHand ? 2 : 1,
    margin: atHand ? 0 : 1,
    borderColor: atHand ? theme.ink : theme.rim,
    backgroundColor: theme.surface,
  }) as const;

/** What the brew is at, in a few words: the step that runs, or what it waits for. */
function stepInWords(brew: BrewState, nowMs: number): string {
  const times = timelineAt(brew, nowMs);
  const current =
    times.find(({ status }) => status === 'running') ?? times.find(({ status }) => status === 'waiting');
  if (!current) return 'done';
  if (current.status === 'running') return current.step.name;
  if (current.step.kind === 'clean') return WORDS.toBeCleaned;
  return current.step.phase === 'brew' && current.startMs > nowMs ? 'resting' : current.step.name;
}
