/**
 * Called away: what runs and how long each forgives; while away, the same to read from afar; and on coming back what
 * happened, with what to save first.
 */
import { useState, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { flameBurns, type HandsAway } from '@even-kettle/core/brew';
import { forHands, forgivenessOf, latenessOf, type Forgiveness, type Hands } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import type { BarView } from '../../client/bar-view';
import { useAgenda, useAtTurns, useBar, useHere, useNow, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { clockTime, inShort } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Dialog } from '../../ui/dialog';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { MainButton } from './main-button';
import { WORDS } from './words';

const MINUTES = [1, 2, 5, 10, 15];
/** What happened meanwhile stays in sight so long, milliseconds of bar time, or until it is put away. */
const BACK_MS = 60_000;
/** A wait shorter than this is not worth a line, milliseconds. */
const SHORT_MS = 2000;

/** The latest absence of this device's hands: with two pairs the log does not say whose left. */
type Absence = { eventId: string; fromMs: number; toMs: number; isRead: boolean };
let absence: Absence | null = null;
const listeners = new Set<() => void>();
const setAbsence = (next: Absence | null) => {
  absence = next;
  for (const listener of listeners) listener();
};
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const useAbsence = () =>
  useSyncExternalStore(
    subscribe,
    () => absence,
    () => absence,
  );

/** The absence that this device's hands are in: their own, or with one pair anybody's. */
export function awayNow(view: BarView, nowMs: number): HandsAway | null {
  const away = whoIsAway(view, nowMs);
  if (!away || !view.bar) return null;
  return view.bar.hands === 1 || absence?.eventId === away.id ? away : null;
}

const whoIsAway = ({ state }: BarView, nowMs: number): HandsAway | null =>
  state.away?.findLast(({ fromMs, toMs }) => fromMs <= nowMs && nowMs < toMs) ?? null;

/** With two pairs: that one of them is away, for whoever stayed. */
export function SomebodyAway() {
  const act = useAct();
  const view = useBar();
  const away = useAtTurns((nowMs) => whoIsAway(view, nowMs), 5000);
  if (!away) return null;
  return (
    <Row>
      <Text style={{ flex: 1 }}>{WORDS.pairAwayUntil(clockTime(away.toMs))}</Text>
      <Button
        label={WORDS.backNow}
        onPress={() => act([{ type: 'event-undone', eventId: away.id }], WORDS.back)}
      />
    </Row>
  );
}

/** The way out, on the card. */
export function CalledAway() {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button
        kind="bare"
        label={WORDS.away}
        says={WORDS.calledAway}
        testID="called-away"
        onPress={() => setAsking(true)}
        style={{ paddingHorizontal: 0 }}
      />
      {asking ? <HowLong onClose={() => setAsking(false)} /> : null}
    </>
  );
}

function HowLong({ onClose }: { onClose: () => void }) {
  const { clock, store } = useHere();
  const { bar, state } = useBar();
  const act = useAct();
  const nowMs = useNow(1000);
  const runs = forgivenessOf(useAgenda(nowMs));
  const alone = bar?.hands === 1;
  const burns = alone && Object.values(state.brews).some((brew) => flameBurns(brew, nowMs));
  const leave = (minutes: number) => {
    const fromMs = clock.nowMs();
    const gone = { type: 'hands-away', fromMs, toMs: fromMs + minutes * 60_000 } as const;
    const taken = act([gone], WORDS.calledAway) ? store.view().state.away?.at(-1) : undefined;
    if (taken) setAbsence({ eventId: taken.id, fromMs, toMs: taken.toMs, isRead: false });
    onClose();
  };
  return (
    <Dialog
      title={WORDS.calledAway}
      onClose={onClose}
      actions={<Button kind="bare" label={WORDS.cancel} onPress={onClose} />}
    >
      {burns ? (
        <Text bold role="alert">
          {WORDS.aFlameBurns}
        </Text>
      ) : null}
      <Running runs={runs} nowMs={nowMs} />
      <Text>{WORDS.forHowLong}</Text>
      <Row style={{ flexWrap: 'wrap' }}>
        {MINUTES.map((minutes) => (
          <Button key={minutes} label={WORDS.min(minutes)} onPress={() => leave(minutes)} />
        ))}
      </Row>
    </Dialog>
  );
}

/** Each brew that runs with its next step and how long that may wait. */
function Running({ runs, nowMs }: { runs: readonly Forgiveness[]; nowMs: number }) {
  const units = useUnits();
  if (runs.length === 0) return <Text quiet>{WORDS.nothingRunsThatSpoils}</Text>;
  return (
    <View style={{ gap: 8 }} role="list" aria-label={WORDS.whatRuns}>
      {runs.map(({ item, untilMs, then }) => (
        <View key={item.brewId} role="listitem" style={{ flexDirection: 'row', gap: 10 }}>
          <Badge badge={item.order.badge} size={28} />
          <View style={{ flex: 1 }}>
            <Text bold>
              {item.station.name}: {inShort(item, units)}
            </Text>
            <Text size="small">
              {untilMs === null
                ? WORDS.mayWait
                : untilMs > nowMs
                  ? WORDS.forgivesFor(showClock(Math.floor((untilMs - nowMs) / 1000)), then)
                  : then}
            </Text>
          </View>
        </View>
      ))}
    </View>
  );
}

/** In the hands card's place while nobody is there. */
export function AwayCard({ away }: { away: HandsAway }) {
  const nowMs = useNow();
  const theme = useTheme();
  const { clock } = useHere();
  const act = useAct();
  const runs = forgivenessOf(useAgenda(nowMs));
  const back = () => {
    setAbsence({ eventId: away.id, fromMs: away.fromMs, toMs: clock.nowMs(), isRead: false });
    act([{ type: 'event-undone', eventId: away.id }]);
  };
  return (
    <Card style={{ gap: 12 }}>
      <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 10 }} testID="away-card">
        <Text size="figure" style={{ color: theme.ink }}>
          {showClock(Math.max(0, nowMs - away.fromMs) / 1000)}
        </Text>
        <Text>{WORDS.awayUntil(clockTime(away.toMs))}</Text>
      </View>
      <Running runs={runs} nowMs={nowMs} />
      <MainButton label={WORDS.iAmBack} hot onPress={back} />
    </Card>
  );
}

/**
 * What happened while these hands were away, said or because the time ran out: what is late, the first to save first.
 */
export function WelcomeBack({ hands }: { hands: Hands }) {
  const own = useAbsence();
  const isBack = useAtTurns(
    (nowMs) => own !== null && !own.isRead && nowMs >= own.toMs && nowMs - own.toMs <= BACK_MS,
  );
  return own && isBack ? <Meanwhile own={own} hands={hands} /> : null;
}

function Meanwhile({ own, hands }: { own: Absence; hands: Hands }) {
  const nowMs = useNow();
  const { plan } = useBar();
  const items = forHands(useAgenda(nowMs), plan, hands);
  const units = useUnits();
  const seen = new Set<string>();
  const lines = items.flatMap((item) => {
    if (!item.brew || seen.has(item.brewId)) return [];
    seen.add(item.brewId);
    const late = latenessOf(item, nowMs);
    const overdueMs = item.asks === 'cue' ? nowMs - item.dueMs : (late?.byMs ?? 0);
    if (overdueMs < SHORT_MS) return [];
    const what = `${item.station.name}: ${inShort(item, units)}`;
    return [WORDS.lateMeanwhile(what, showClock(overdueMs / 1000), late?.words ?? '')];
  });
  return (
    <Card style={{ gap: 4 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text bold testID="welcome-back">
          {WORDS.youWereAway(showClock((own.toMs - own.fromMs) / 1000))}
        </Text>
        <Button
          kind="bare"
          icon="close"
          label=""
          says={WORDS.close}
          onPress={() => setAbsence({ ...own, isRead: true })}
        />
      </Row>
      {lines.length === 0 ? (
        <Text>{WORDS.nothingIsLate}</Text>
      ) : (
        lines.map((line, index) => (
          <Text key={line} bold={index === 0}>
            {index === 0 ? WORDS.saveFirst(line) : line}
          </Text>
        ))
      )}
    </Card>
  );
}
