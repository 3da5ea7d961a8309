/**
 * The hands card: the one thing to do now. Verb, figure, one button.
 */
import { useEffect, useState } from 'react';
import { Pressable, View, type ViewStyle } from 'react-native';
import { SOON_MS, tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { anchorMs, pouredG, timelineAt } from '@even-kettle/core/brew';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { newId, useBar, useHere, useUnits } from '../../bar/bar-context';
import { askedOf, cupInWords } from '../../bar/words';
import { Badge } from '../../ui/badge';
import { useLook } from '../../ui/look';
import { Row, Tap } from '../../ui/parts';
import { Text } from '../../ui/text';
import { MAIN_TOUCH, RADIUS, TOUCH } from '../../ui/theme';

export function HandsCard({ item, nowMs }: { item: AgendaItem; nowMs: number }) {
  const look = useLook();
  const units = useUnits();
  const { store, clock } = useHere();
  const { bar } = useBar();
  const reading = useReading(item);
  const asked = askedOf(item, units);
  const now = item.begunMs !== null || item.asks === 'cue' || item.dueMs <= nowMs;
  const hot = now && item.asks !== 'cue';
  const done = () => {
    if (bar)
      store.act(
        tapEvents(
          item,
          bar,
          clock.nowMs(),
          newId,
          reading.given === undefined ? {} : { readingG: reading.given },
        ),
        asked.button,
      );
  };

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
      <View style={{ padding: 14, gap: 4 }}>
        <Row>
          <Badge badge={item.order.badge} size={32} />
          <Text numberOfLines={1} style={{ flex: 1 }}>
            <Text bold>{item.station.name}</Text> · {cupInWords(item.cup, units)}
          </Text>
        </Row>
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
          <Figure item={item} nowMs={nowMs} asked={asked.figure} />
        </View>
        {now ? <Progress item={item} nowMs={nowMs} units={units} /> : <Countdown item={item} nowMs={nowMs} />}
        {item.asks === 'runs' ? (
          <View style={{ height: MAIN_TOUCH }} />
        ) : (
          <MainButton label={asked.button} hot={hot} onPress={done} />
        )}
        <Row style={{ minHeight: TOUCH, marginBottom: -6, justifyContent: 'space-between' }}>
          <Undo otherwise={asked.detail} />
          {item.step.kind === 'pour' && item.asks === 'finish' && now ? (
            <ReadingStepper reading={reading} units={units} />
          ) : null}
        </Row>
      </View>
    </View>
  );
}

/** The number to read across the bar; while something is watched or runs, the time instead. */
function Figure({
  item,
  nowMs,
  asked,
}: {
  item: AgendaItem;
  nowMs: number;
  asked: { figure: string; unit: string };
}) {
  const timed = item.asks === 'cue' || item.asks === 'runs';
  const shown = timed ? { figure: clockOf(item, nowMs), unit: '' } : asked;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 8 }} aria-hidden>
      <Text size="figure" testID="figure" style={{ fontVariant: ['tabular-nums'], letterSpacing: -1 }}>
        {shown.figure}
      </Text>
      <Text size="figure" style={{ fontSize: 30, lineHeight: 40 }}>
        {shown.unit}
      </Text>
    </View>
  );
}

/** A running brew's own timer, or what is left of a step that runs by the clock. */
function clockOf(item: AgendaItem, nowMs: number): string {
  if (item.asks === 'runs')
    return showClock(Math.max(0, Math.ceil((item.dueMs + item.step.durationS * 1000 - nowMs) / 1000)));
  const zeroMs = item.brew ? anchorMs(item.brew, nowMs) : null;
  return zeroMs === null ? '0:00' : showClock(Math.max(0, nowMs - zeroMs) / 1000);
}

function Countdown({ item, nowMs }: { item: AgendaItem; nowMs: number }) {
  const look = useLook();
  const leftMs = Math.max(0, item.dueMs - nowMs);
  const soon = leftMs <= SOON_MS;
  return (
    <View
      style={{
        backgroundColor: soon ? look.soon : look.coolPale,
        borderRadius: RADIUS,
        paddingHorizontal: 12,
        paddingVertical: 7,
        flexDirection: 'row',
        justifyContent: 'space-between',
        alignItems: 'baseline',
      }}
    >
      <Text>{item.station.free ? 'Next, in' : `When ${item.station.name} is free, in`}</Text>
      <Text size="verb" testID="countdown">
        {showClock(Math.ceil(leftMs / 1000))}
      </Text>
    </View>
  );
}

/** How far the step should be by now: for a pour, what the scale should read. */
function Progress({ item, nowMs, units }: { item: AgendaItem; nowMs: number; units: Units }) {
  const look = useLook();
  const late =
    item.latestMs !== null && item.begunMs === null && nowMs > item.latestMs ? nowMs - item.latestMs : 0;
  const begunMs = item.asks === 'start' ? null : item.fromMs;
  const zeroMs = item.brew ? anchorMs(item.brew, nowMs) : null;
  const share =
    item.asks === 'cue'
      ? cueShare(item, nowMs)
      : begunMs === null
        ? 0
        : Math.min(1, Math.max(0, (nowMs - begunMs) / (item.step.durationS * 1000)));
  return (
    <View style={{ gap: 2 }}>
      <View
        role="progressbar"
        aria-label="How far this step should be"
        aria-valuenow={Math.round(share * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
        style={{ height: 22, borderRadius: 3, backgroundColor: look.coolPale, overflow: 'hidden' }}
      >
        <View style={{ width: `${share * 100}%`, height: '100%', backgroundColor: look.cool }} />
      </View>
      <Row style={{ justifyContent: 'space-between' }}>
        {late > 0 ? <Late lateMs={late} /> : <Text quiet>{paceWords(item, nowMs, begunMs, units)}</Text>}
        {zeroMs !== null && item.asks !== 'cue' ? (
          <Text testID="brew-clock">{showClock(Math.max(0, nowMs - zeroMs) / 1000)}</Text>
        ) : null}
      </Row>
    </View>
  );
}

function paceWords(item: AgendaItem, nowMs: number, begunMs: number | null, units: Units): string {
  const { step, card, brew } = item;
  if (item.asks === 'cue')
    return `expected by ${showClock(card.brewWindowS.from)} to ${showClock(card.brewWindowS.to)}`;
  if (step.targetG !== undefined && step.pourG !== undefined && step.flowGPerS !== undefined) {
    if (begunMs === null) return 'tap at the first water';
    const fromG = brew ? Math.min(pouredG(brew), step.targetG) : step.targetG - step.pourG;
    const shouldG = Math.min(step.targetG, fromG + Math.max(0, ((nowMs - begunMs) / 1000) * step.flowGPerS));
    return `scale should read ${inWords(showMass(shouldG, units, 'water'))}`;
  }
  return item.asks === 'runs' ? 'goes on by itself' : `about ${step.durationS} s`;
}

function cueShare(item: AgendaItem, nowMs: number): number {
  const running = item.brew && timelineAt(item.brew, nowMs).find(({ step }) => step.id === item.awaited?.id);
  return running
    ? Math.min(1, Math.max(0, (nowMs - running.startMs) / (running.endMs - running.startMs)))
    : 0;
}

/** Late is the flame and a notch, never another red. */
function Late({ lateMs }: { lateMs: number }) {
  const look = useLook();
  const notch = { clipPath: 'polygon(0 0, 100% 0, 100% 100%, 0 100%, 7px 50%)' } as ViewStyle;
  return (
    <View style={[{ backgroundColor: look.flame, paddingLeft: 14, paddingRight: 8 }, notch]}>
      <Text bold color={look.onFlame}>
        {showClock(lateMs / 1000)} late
      </Text>
    </View>
  );
}

function MainButton({ label, hot, onPress }: { label: string; hot: boolean; onPress: () => void }) {
  const look = useLook();
  return (
    <Pressable
      role="button"
      aria-label={label}
      testID="main-button"
      onPress={onPress}
      style={({ pressed }) => ({
        minHeight: MAIN_TOUCH,
        marginTop: 6,
        borderRadius: RADIUS,
        alignItems: 'center',
        justifyContent: 'center',
        borderWidth: 2,
        borderColor: hot ? look.flame : look.ink,
        backgroundColor: hot ? look.flame : pressed ? look.coolPale : 'transparent',
        opacity: pressed && hot ? 0.85 : 1,
      })}
    >
      <Text size="verb" color={hot ? look.onFlame : look.ink}>
        {label}
      </Text>
    </Pressable>
  );
}

/** For ten seconds the way back; otherwise a hint for the step stands in its place, so that nothing moves. */
function Undo({ otherwise }: { otherwise: string }) {
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
}

type Reading = { shownG: number; given: number | undefined; change: (byG: number) => void };

/** What the scale read at the end of a pour; left alone, nothing is said of it. */
function useReading(item: AgendaItem): Reading {
  const [off, setOff] = useState<{ key: string; byG: number }>({ key: item.key, byG: 0 });
  const byG = off.key === item.key ? off.byG : 0;
  const shownG = (item.step.targetG ?? 0) + byG;
  return {
    shownG,
    given: byG === 0 ? undefined : shownG,
    change: (by) => setOff({ key: item.key, byG: byG + by }),
  };
}

function ReadingStepper({ reading, units }: { reading: Reading; units: Units }) {
  return (
    <Row style={{ gap: 4 }}>
      <Tap
        kind="bare"
        label=""
        icon="minus"
        says="Scale reads one gram less"
        onPress={() => reading.change(-1)}
        style={{ paddingHorizontal: 0 }}
      />
      <Text quiet={reading.given === undefined} bold={reading.given !== undefined}>
        reads {inWords(showMass(reading.shownG, units, 'water'))}
      </Text>
      <Tap
        kind="bare"
        label=""
        icon="plus"
        says="Scale reads one gram more"
        onPress={() => reading.change(1)}
        style={{ paddingHorizontal: 0 }}
      />
    </Row>
  );
}
