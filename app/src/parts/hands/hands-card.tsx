/**
 * The hands card: the one thing to do now. Verb, figure, one button.
 */
import { memo, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { router } from 'expo-router';
import type { BarEvent } from '@even-kettle/core/brew';
import { byHands, latenessOf, tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { inWords, showClock } from '@even-kettle/core/units';
import { newId, useAtTurns, useBar, useHere, useScaleFact, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { useHabit } from '../../device/use-habit';
import { groundFor } from '../../words/grind-words';
import { handsWords, cupInWords } from '../../words/hands-words';
import { useDevice, type DeviceSettings } from '../../device/settings';
import { useShortcuts } from '../../device/shortcuts';
import { Badge } from '../../ui/badge';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { MAIN_TOUCH, RADIUS, TOUCH } from '../../ui/theme';
import { Undo } from '../undo';
import { Wishes } from '../wishes';
import { CalledAway } from './called-away';
import { Figure } from './figure';
import { Guests } from './guests';
import { Learner } from './learner';
import { HoldToPour } from './hold-to-pour';
import { MainButton } from './main-button';
import { Countdown, Pace } from './pace';
import { ReadingStepper, useReading } from './reading-stepper';
import { Checklist, CardStrip } from './said';
import { notOverMs, useSight } from './watched';
import { WaterWay } from './water-way';
import { WORDS } from './words';

/** How long a tap that came early waits for its answer, milliseconds. */
const ASKED_MS = 6000;
/** A pour may start so much early, as the recipes allow where they say nothing else, milliseconds. */
const EARLY_MS = 3000;

/** No hand pours so many times as fast as its recipe. */
const FASTEST = 4;

/**
 * How long before its time a step of a running brew is said to be done, or begun; null where it is time, or does not matter.
 * @param readsG what a connected scale shows
 */
function tooEarlyMs(item: AgendaItem, nowMs: number, readsG: number | null): number | null {
  const { step, asks } = item;
  // A pour that cannot be over yet is asked after, not reckoned with.
  if (step.kind === 'pour' && asks === 'finish' && item.brew !== null && item.fromMs <= nowMs) {
    const lastsMs = step.durationS * 1000;
    const isShort = readsG !== null && readsG < (step.targetG ?? 0) - (step.pourG ?? 0) / 2;
    const ranMs = nowMs - item.fromMs;
    const tells = readsG === null ? ranMs < lastsMs / FASTEST : isShort;
    return tells ? Math.max(1000, lastsMs - ranMs) : null;
  }
  // The first water may come when it likes: the timer waits for it.
  const isTold = asks === 'finish' || (asks === 'start' && step.anchor === undefined);
  const matters = item.brew !== null && step.phase === 'brew' && isTold;
  const earlyMs = item.dueMs - nowMs;
  // What is waited for by eye comes when it comes, within its window.
  const mayBeMs = step.startCue ? (step.lag.idealS - step.lag.minS) * 1000 : EARLY_MS;
  return matters && item.begunMs === null && earlyMs > mayBeMs ? earlyMs : null;
}

/** Room for what stands above the button, so that the thumb finds it in one place whatever the step. */
const ABOVE_H = 252;
/** A window lower than this has the button beside, so wide. */
const SHORT_H = 560;
const BESIDE_W = 220;

// eslint-disable-next-line max-lines-per-function -- the arrangement of one card
export const HandsCard = memo(function HandsCard({ item: given }: { item: AgendaItem }) {
  const theme = useTheme();
  const units = useUnits();
  // On its side, or enlarged, a screen is too low for the button below what it is for.
  const short = useWindowDimensions().height < SHORT_H;
  const { store, clock, devices, silent = false } = useHere();
  const { bar, state, plan } = useBar();
  const device = useDevice();
  const { id: stationId } = given.station;
  const hasScale = useScaleFact(stationId, (scale) => scale?.connected ?? false);
  const isHeld = useScaleFact(stationId, (scale) => (scale?.simulated && !scale.practised) ?? false);
  const item = useMemo(() => countedIn(given, device, hasScale), [given, device, hasScale]);
  // What came out of the grinder is weighed again before it is loaded, and the recipe follows it.
  const asksDose = item.step.kind === 'load' && item.brew !== null && isGround(item);
  const reading = useReading(item, asksDose ? item.card.doseG : (item.step.targetG ?? 0));
  const askedC = temperatureAsked(item);
  const thermometer = useReading(item, askedC ?? 0);
  const ground = bar ? groundFor(item, bar, state) : null;
  const asked = handsWords(item, units, ground, (bar && bar.kettles.length > 1 && item.kettle?.name) || null);
  const [asking, setAsking] = useState<string | null>(null);
  const readsG = () => (hasScale ? (devices.scale(stationId)?.massG ?? null) : null);
  // The card is drawn again when one of these comes out otherwise; what counts down has its own clock.
  const { now, askedEarlyS } = useAtTurns((nowMs) => {
    const earlyMs = asking === item.key ? tooEarlyMs(item, nowMs, readsG()) : null;
    return {
      now: item.begunMs !== null || item.asks === 'cue' || item.dueMs <= nowMs,
      askedEarlyS: earlyMs === null ? null : Math.ceil(earlyMs / 1000),
    };
  });
  const hot = now && item.asks !== 'cue';
  const habit = useHabit(item.station.id);
  useSight(item);
  const pouring = item.step.kind === 'pour' && item.asks !== 'cue';
  // What a scale ends by itself needs no lead; a hand that reads it does.
  const leadG = device.lead && pouring && !item.step.byEye && !hasScale ? habit.leadG : 0;
  const stopAtG = leadG > 0 && item.step.targetG !== undefined ? item.step.targetG - leadG : null;
  // Without a scale that tells, what it read is a person's to say.
  const reads = pouring && now && item.asks === 'finish' && !hasScale && !item.step.byEye;
  const holds = pouring && now && hasScale && isHeld;
  const done = () => {
    if (!bar) return;
    // What the scale shows is what was poured; without one, what the person says it shows.
    const readingG = asksDose
      ? undefined
      : pouring && hasScale && item.asks === 'finish'
        ? Math.max(0, readsG() ?? 0)
        : reading.given;
    const unsureSinceMs = notOverMs(item, clock.nowMs());
    const said = {
      ...(readingG === undefined ? {} : { readingG }),
      ...(askedC === null || thermometer.given === undefined ? {} : { readC: thermometer.given }),
      ...(leadG > 0 && readingG !== undefined ? { leadG } : {}),
      ...(device.person === null ? {} : { by: device.person }),
      ...byHands(item, plan, device.hands, bar.hands),
      ...(unsureSinceMs === undefined ? {} : { notOverMs: unsureSinceMs }),
    };
    const realDose: BarEvent[] =
      asksDose && reading.given !== undefined && reading.given > 0
        ? [
            {
              id: newId(),
              type: 'dose-corrected',
              atMs: clock.nowMs(),
              brewId: item.brewId,
              doseG: reading.given,
              ...(device.person === null ? {} : { by: device.person }),
            },
          ]
        : [];
    store.act([...realDose, ...tapEvents(item, bar, clock.nowMs(), newId, said)], asked.button);
    setAsking(null);
  };
  // What a recipe wants later is seldom done already: a tap before its time is asked after once.
  // Whoever says what the scale reads knows that the pour is over.
  const isSaid = reads && reading.given !== undefined;
  const tapped = () => {
    const isEarly = !isSaid && tooEarlyMs(item, clock.nowMs(), readsG()) !== null;
    if (isEarly && asking !== item.key) return setAsking(item.key);
    done();
  };
  const button =
    askedEarlyS !== null && !isSaid
      ? WORDS.earlyAlready(showClock(askedEarlyS), asked.button.toLowerCase())
      : asked.button;
  useShortcuts({ ' ': tapped });
  const latest = useRef(tapped);
  // Before anybody can touch what was drawn: a tap is judged by the card that shows, never by the one before.
  useLayoutEffect(() => {
    latest.current = tapped;
  });
  useEffect(() => {
    if (asking === null) return undefined;
    const timer = setTimeout(() => setAsking(null), ASKED_MS);
    return () => clearTimeout(timer);
  }, [asking]);
  const press = useCallback(() => latest.current(), []);

  return (
    <View
      testID="hands-card"
      style={{
        backgroundColor: theme.surface,
        borderColor: theme.rim,
        borderWidth: 1,
        borderRadius: RADIUS,
        overflow: 'hidden',
      }}
    >
      <View style={{ height: 6, backgroundColor: hot ? theme.flame : theme.cool }} />
      <View style={{ padding: 14, paddingTop: 6, gap: 4 }}>
        <Head
          badge={item.order.badge}
          stationId={item.station.id}
          stationName={item.station.name}
          cup={cupInWords(item.cup, units)}
          running={item.brew !== null && !silent}
        />
        <Wishes cup={item.cup} inARow isServed={item.step.kind === 'serve'} />
        <View style={short ? { flexDirection: 'row', alignItems: 'flex-start', gap: 14 } : { gap: 4 }}>
          <View style={short ? { flex: 1, minWidth: 0, gap: 2 } : { minHeight: ABOVE_H, gap: 4 }}>
            <View
              role="status"
              aria-live="polite"
              aria-label={`${item.station.name}: ${asked.verb} ${inWords(asked.figure)}`}
            >
              <Row style={{ alignItems: 'baseline', flexWrap: 'wrap' }}>
                <Text size="verb" testID="verb">
                  {asked.verb}
                </Text>
                {item.step.kind === 'pour' && item.asks !== 'cue' ? (
                  <Text quiet size="small">
                    {item.step.name}
                  </Text>
                ) : null}
              </Row>
            </View>
            <Row style={{ justifyContent: 'space-between', alignItems: 'flex-end', gap: 4 }}>
              <Figure item={item} asked={asked.figure} stopAtG={stopAtG} units={units} />
              {reads ? <ReadingStepper kind="water" reading={reading} units={units} /> : null}
              {askedC === null ? null : (
                <ReadingStepper kind="temperature" reading={thermometer} units={units} />
              )}
              {asksDose ? <ReadingStepper kind="dose" reading={reading} units={units} /> : null}
            </Row>
            {/* What the step needs stands here and nothing takes its place. */}
            <WaterWay item={item} detail={asked.detail} units={units} />
            <Checklist item={item} />
            <Guests item={item} />
            {now ? <Pace item={item} units={units} /> : <Countdown item={item} />}
            <CardStrip item={item} />
          </View>
          {item.asks === 'runs' ? (
            <View style={{ height: MAIN_TOUCH }} />
          ) : (
            <Row
              style={short ? { width: BESIDE_W, flexDirection: 'column-reverse', alignItems: 'stretch' } : {}}
            >
              {holds ? (
                <HoldToPour
                  key={item.brewId}
                  stationId={item.station.id}
                  flowGPerS={item.step.flowGPerS ?? 5}
                />
              ) : null}
              {/* Another brew's is another button: a thumb that was on its way is told from one that meant it. */}
              <MainButton key={item.brewId} label={button} hot={hot} onPress={press} />
            </Row>
          )}
        </View>
        <StartAgain item={item} />
        {device.learning || silent ? <Learner item={item} /> : null}
      </View>
    </View>
  );
});

/** The temperature that is looked for: in the top of a globe, or in the jug before a cool pour; null where none is. */
function temperatureAsked({ step, asks }: AgendaItem): number | null {
  if (asks === 'cue' || asks === 'runs') return null;
  // A thermometer is read to a degree.
  if (step.checkC) return Math.round((step.checkC.from + step.checkC.to) / 2);
  return asks === 'start' ? (step.waterC ?? null) : null;
}

/** Whether its beans were ground for it, so that what came out can be weighed. */
const isGround = ({ card }: AgendaItem): boolean => card.steps.some(({ kind }) => kind === 'grind');

/**
 * A pour that is counted into its target by the clock has to be told when it begins: where no scale tells, its first tap
 * says so.
 */
function countedIn(item: AgendaItem, device: DeviceSettings, hasScale: boolean): AgendaItem {
  const counts = device.countTones || device.countVoice;
  const begins =
    counts &&
    !hasScale &&
    item.step.kind === 'pour' &&
    item.brew !== null &&
    item.asks === 'finish' &&
    item.begunMs === null;
  return begins ? { ...item, asks: 'start' } : item;
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
      <WayBack />
      {running ? (
        <Button
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

/** A cup that is past saving is brewed again in one tap: the brew ends, and its cup waits. */
function StartAgain({ item }: { item: AgendaItem }) {
  const act = useAct();
  const isPastSaving = useAtTurns((nowMs) => latenessOf(item, nowMs)?.startAgain ?? false);
  if (!isPastSaving) return null;
  const again = () =>
    act(
      [
        {
          type: 'brew-abandoned',
          brewId: item.brewId,
          reason: WORDS.theBedRanDry,
        },
      ],
      WORDS.startThisCupAgain,
    );
  return <Button kind="ruled" label={WORDS.startThisCupAgain} onPress={again} testID="start-again" />;
}

/** Room for it is always kept, so that nothing moves. */
const UNDO_W = 112;

/** For ten seconds the way back, in a place of its own; at other times the way out. */
const WayBack = memo(function WayBack() {
  const { silent = false } = useHere();
  return (
    <View style={{ width: UNDO_W }}>
      <Undo otherwise={silent ? null : <CalledAway />} />
    </View>
  );
});
