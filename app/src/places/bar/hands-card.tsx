/**
 * The hands card: the one thing to do now. Verb, figure, one button.
 */
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { inWords } from '@even-kettle/core/units';
import { newId, useBar, useHere, useScale, useUnits } from '../../bar/bar-context';
import { useHabit } from '../../bar/use-habit';
import { askedOf, cupInWords } from '../../bar/words';
import { useDevice } from '../../device/settings';
import { useShortcuts } from '../../device/shortcuts';
import { Badge } from '../../ui/badge';
import { useLook } from '../../ui/look';
import { Row, Tap } from '../../ui/parts';
import { Text } from '../../ui/text';
import { MAIN_TOUCH, RADIUS, TOUCH } from '../../ui/theme';
import { Figure } from './figure';
import { HoldToPour } from './hold-to-pour';
import { MainButton } from './main-button';
import { Countdown, Pace } from './pace';
import { ReadingStepper, useReading } from './reading-stepper';
import { Checklist, Said } from './said';

/** Room for what stands above the button, so that the thumb finds it in one place whatever the step. */
const ABOVE_H = 268;

export function HandsCard({ item, nowMs }: { item: AgendaItem; nowMs: number }) {
  const look = useLook();
  const units = useUnits();
  const { store, clock } = useHere();
  const { bar } = useBar();
  const reading = useReading(item);
  const asked = askedOf(item, units);
  const now = item.begunMs !== null || item.asks === 'cue' || item.dueMs <= nowMs;
  const hot = now && item.asks !== 'cue';
  const scale = useScale(item.station.id);
  const device = useDevice();
  const habit = useHabit(item.station.id);
  const pouring = item.step.kind === 'pour' && item.asks !== 'cue';
  // What a scale ends by itself needs no lead; a hand that reads it does.
  const leadG = device.lead && pouring && !item.step.byEye && !scale?.connected ? habit.leadG : 0;
  const stopAtG = leadG > 0 && item.step.targetG !== undefined ? item.step.targetG - leadG : null;
  const holds = pouring && now && scale?.connected && scale.standIn && !scale.practised;
  const done = () => {
    if (!bar) return;
    // What the scale shows is what was poured; without one, what the person says it shows.
    const readingG =
      pouring && scale?.connected && item.asks === 'finish' ? Math.max(0, scale.massG) : reading.given;
    const said = {
      ...(readingG === undefined ? {} : { readingG }),
      ...(leadG > 0 && readingG !== undefined ? { leadG } : {}),
      ...(device.person === null ? {} : { by: device.person }),
    };
    store.act(tapEvents(item, bar, clock.nowMs(), newId, said), asked.button);
  };
  useShortcuts({ ' ': done });
  const latest = useRef(done);
  useEffect(() => {
    latest.current = done;
  });
  const press = useCallback(() => latest.current(), []);

  return (
    <View
      testID="hands-card"
      style={{
        backgroundColor: look.surface,
        borderColor: look.rim,
        borderWidth: 1,
        borderRadius: RADIUS,
        overflow: 'hidden',
      }}
    >
      <View style={{ height: 6, backgroundColor: hot ? look.flame : look.cool }} />
      <View style={{ padding: 14, paddingTop: 6, gap: 4 }}>
        <Head
          badge={item.order.badge}
          stationId={item.station.id}
          stationName={item.station.name}
          cup={cupInWords(item.cup, units)}
          running={item.brew !== null}
        />
        <View style={{ minHeight: ABOVE_H, gap: 4 }}>
          <View
            role="status"
            aria-live="polite"
            aria-label={`${item.station.name}: ${asked.verb} ${inWords(asked.figure)}`}
          >
            {item.step.kind === 'pour' && item.asks !== 'cue' ? (
              <Text quiet size="small">
                {item.step.name}
              </Text>
            ) : null}
            <Text size="verb" testID="verb">
              {asked.verb}
            </Text>
            <Figure
              item={item}
              nowMs={nowMs}
              asked={asked.figure}
              scale={scale}
              stopAtG={stopAtG}
              units={units}
            />
          </View>
          <Checklist item={item} />
          {now ? (
            <Pace item={item} nowMs={nowMs} units={units} scale={scale} />
          ) : (
            <Countdown item={item} nowMs={nowMs} />
          )}
          <Said item={item} nowMs={nowMs} />
        </View>
        {item.asks === 'runs' ? (
          <View style={{ height: MAIN_TOUCH }} />
        ) : (
          <Row>
            {holds ? (
              <HoldToPour
                key={item.brewId}
                stationId={item.station.id}
                flowGPerS={item.step.flowGPerS ?? 5}
              />
            ) : null}
            {/* Another brew's is another button: a thumb that was on its way is told from one that meant it. */}
            <MainButton key={item.brewId} label={asked.button} hot={hot} onPress={press} />
          </Row>
        )}
        <Row style={{ minHeight: TOUCH, marginBottom: -6, justifyContent: 'space-between' }}>
          <Undo otherwise={asked.detail} />
          {item.step.kind === 'pour' &&
          item.asks === 'finish' &&
          now &&
          !scale?.connected &&
          !item.step.byEye ? (
            <ReadingStepper reading={reading} units={units} />
          ) : null}
        </Row>
      </View>
    </View>
  );
}

type HeadProps = {
  badge: number;
  stationId: string;
  stationName: string;
  cup: string;
  running: boolean;
};

/** Whose cup, and where. What stands still in the card is not drawn with every tick of it. */
const Head = memo(function Head({ badge, stationId, stationName, cup, running }: HeadProps) {
  return (
    <Row>
      <Badge badge={badge} size={32} />
      <Text numberOfLines={1} style={{ flex: 1 }}>
        <Text bold>{stationName}</Text> · {cup}
      </Text>
      {running ? (
        <Tap
          kind="bare"
          icon="more"
          label=""
          says={`More about ${stationName}`}
          testID="more"
          onPress={() => router.push({ pathname: '/station/[id]', params: { id: stationId } })}
          style={{ marginRight: -10 }}
        />
      ) : (
        <View style={{ height: TOUCH }} />
      )}
    </Row>
  );
});

/** For ten seconds the way back; otherwise a hint for the step stands in its place, so that nothing moves. */
const Undo = memo(function Undo({ otherwise }: { otherwise: string }) {
  const { store } = useHere();
  const { undoable } = useBar();
  const [realMs, setRealMs] = useState(Date.now);
  useEffect(() => {
    if (!undoable) return undefined;
    const timer = setInterval(() => setRealMs(Date.now()), 250);
    return () => clearInterval(timer);
  }, [undoable]);
  const leftS = undoable ? Math.ceil((undoable.untilRealMs - realMs) / 1000) : 0;
  if (!undoable || leftS <= 0) {
    return (
      <Text quiet size="small" numberOfLines={2} style={{ flex: 1 }}>
        {otherwise}
      </Text>
    );
  }
  return (
    <Tap
      kind="bare"
      icon="undo"
      label={`Undo “${undoable.label}” · ${Math.min(10, leftS)}`}
      says={`Undo ${undoable.label}`}
      onPress={store.undo}
      testID="undo"
      style={{ paddingHorizontal: 4 }}
    />
  );
});
