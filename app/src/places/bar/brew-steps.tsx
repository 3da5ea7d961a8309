/**
 * A brew's steps as planned and as they were, each to be corrected, or left out while it lies ahead.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { anchorMs, isRemark, timelineAt, type BrewState, type StepTime } from '@even-kettle/core/brew';
import { G_PER_OZ, inWords, showClock, showMass } from '@even-kettle/core/units';
import { useNow, useUnits } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { Field } from '../../ui/field';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { readTyped } from '../../ui/typed';
import { WORDS } from '../../parts/hands/words';

export function BrewSteps({ brew }: { brew: BrewState }) {
  const nowMs = useNow(1000);
  const [openId, setOpenId] = useState<string | null>(null);
  const [withPrep, setWithPrep] = useState(false);
  const times = timelineAt(brew, nowMs);
  const zeroMs = anchorMs(brew, nowMs);
  const there = new Set(brew.card.steps.map(({ id }) => id));
  const prepOver = times.filter(({ step, status }) => step.phase === 'prep' && status === 'done');
  const shown = withPrep ? times : times.filter((time) => !prepOver.includes(time));
  const leftOut = brew.planned.steps.filter(({ id }) => !there.has(id));
  return (
    <Card style={{ gap: 0 }}>
      <Row style={{ justifyContent: 'space-between', minHeight: 48 }}>
        <Subheading>{WORDS.steps}</Subheading>
        {prepOver.length > 0 ? (
          <Button
            kind="bare"
            label={withPrep ? WORDS.hidePrep : WORDS.showPrepDone(prepOver.length)}
            onPress={() => setWithPrep(!withPrep)}
          />
        ) : null}
      </Row>
      {shown.map((time) => (
        <StepRow
          key={time.step.id}
          brew={brew}
          time={time}
          zeroMs={zeroMs}
          open={openId === time.step.id}
          onOpen={(open) => setOpenId(open ? time.step.id : null)}
        />
      ))}
      {leftOut.length > 0 ? (
        <Text quiet size="small" style={{ paddingTop: 6 }}>
          {WORDS.leftOut} {leftOut.map(({ name }) => name).join(', ')}.
        </Text>
      ) : null}
    </Card>
  );
}

type RowProps = {
  brew: BrewState;
  time: StepTime;
  zeroMs: number | null;
  open: boolean;
  onOpen: (open: boolean) => void;
};

function StepRow({ brew, time, zeroMs, open, onOpen }: RowProps) {
  const theme = useTheme();
  const units = useUnits();
  const act = useAct();
  const { step, status, startMs, endMs } = time;
  const mark = brew.marks[step.id];
  const clockAt = (atMs: number) => (zeroMs === null ? clockTime(atMs) : signed((atMs - zeroMs) / 1000));
  const spent = status === 'done' ? WORDS.to(clockAt(startMs), clockAt(endMs)) : status;
  const target =
    step.targetG === undefined ? '' : WORDS.toForTargetG(inWords(showMass(step.targetG, units, 'water')));
  const read =
    mark?.readingG === undefined ? '' : WORDS.read(inWords(showMass(mark.readingG, units, 'water')));
  const canSkip =
    brew.status === 'running' &&
    status === 'waiting' &&
    step.attended &&
    !step.anchor &&
    step.kind !== 'serve' &&
    step.kind !== 'clean';
  // What was said last can be taken back for as long as nothing has followed, and not for ten seconds only.
  const last = brew.events.findLast((event) => !isRemark(event));
  const reopens =
    brew.status === 'running' && last?.type === 'step-done' && last.stepId === step.id ? last.id : null;
  const reopen = () =>
    reopens && act([{ type: 'event-undone', eventId: reopens }], WORDS.reopened(step.name));
  const skip = () =>
    act([{ type: 'step-skipped', brewId: brew.id, stepId: step.id }], `Left out ${step.name}`);
  return (
    <View style={{ borderTopWidth: 1, borderColor: theme.rim, opacity: status === 'skipped' ? 0.5 : 1 }}>
      <Row style={{ minHeight: 50 }}>
        <View style={{ flex: 1 }}>
          <Text bold={status === 'running'} numberOfLines={1}>
            {step.name}
            {target}
          </Text>
          <Text size="small" quiet>
            {status === 'waiting' && step.startS >= 0 ? WORDS.planned(showClock(step.startS)) : spent}
            {read}
          </Text>
        </View>
        {reopens ? (
          <Button kind="bare" label={WORDS.reopen} says={WORDS.reopenForName(step.name)} onPress={reopen} />
        ) : null}
        {mark?.doneMs !== undefined ? (
          <Button
            kind="bare"
            label={open ? WORDS.close : WORDS.correct}
            says={`${open ? WORDS.close : WORDS.correct} ${step.name}`}
            onPress={() => onOpen(!open)}
          />
        ) : canSkip ? (
          <Button kind="bare" label={WORDS.leaveOut} says={`Leave out ${step.name}`} onPress={skip} />
        ) : null}
      </Row>
      {open && mark?.doneMs !== undefined ? (
        <Correction brew={brew} time={time} zeroMs={zeroMs} onDone={() => onOpen(false)} />
      ) : null}
    </View>
  );
}

/** What was wrong: when it ended, and what the scale read. */
function Correction({
  brew,
  time,
  zeroMs,
  onDone,
}: Omit<RowProps, 'open' | 'onOpen'> & { onDone: () => void }) {
  const act = useAct();
  const units = useUnits();
  const { step } = time;
  const mark = brew.marks[step.id]!;
  const ofG = units.mass === 'oz' ? G_PER_OZ : 1;
  const baseMs = zeroMs ?? brew.startedMs;
  const [ended, setEnded] = useState(signed((mark.doneMs! - baseMs) / 1000));
  const [reading, setReading] = useState(
    mark.readingG === undefined ? '' : String(Number((mark.readingG / ofG).toFixed(2))),
  );
  const endedS = readClock(ended);
  const typed = readTyped(reading, WORDS.reads);
  const readingG = reading.trim() === '' ? undefined : typed.ok ? typed.value * ofG : NaN;
  const wrong =
    endedS === null
      ? WORDS.endedField
      : readingG !== undefined && !(readingG >= 0)
        ? WORDS.readingError
        : null;
  const save = () => {
    if (wrong || endedS === null) return;
    const doneMs = Math.round(baseMs + endedS * 1000);
    const event: NewEvent = {
      type: 'step-corrected',
      brewId: brew.id,
      stepId: step.id,
      // Shown to the second; what was not touched stays to the millisecond.
      ...(Math.abs(doneMs - mark.doneMs!) >= 1000 ? { doneMs } : {}),
      ...(readingG === undefined || readingG === mark.readingG ? {} : { readingG }),
    };
    if (event.type === 'step-corrected' && (event.doneMs ?? event.readingG) === undefined) return onDone();
    if (act([event], WORDS.corrected(step.name))) onDone();
  };
  return (
    <View style={{ gap: 8, paddingBottom: 12 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <Field
          label={zeroMs === null ? WORDS.endedSinceTheStart : WORDS.endedOnTheTimer}
          value={ended}
          onChangeText={setEnded}
          fault={endedS === null}
          style={{ flex: 1 }}
          testID="corrected-end"
        />
        {step.targetG !== undefined ? (
          <Field
            label={WORDS.scaleRead(units.mass)}
            value={reading}
            onChangeText={setReading}
            fault={readingG !== undefined && !(readingG >= 0)}
            style={{ flex: 1 }}
            testID="corrected-reading"
          />
        ) : null}
        <Button kind="main" label={WORDS.save} says={WORDS.saveTheCorrectionOf(step.name)} onPress={save} />
      </Row>
      {wrong ? (
        <Text role="alert" bold size="small">
          {wrong}
        </Text>
      ) : null}
    </View>
  );
}

const clockTime = (atMs: number): string =>
  new Date(atMs).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit', second: '2-digit' });

/** m:ss, with a sign before the timer's zero. */
const signed = (seconds: number): string =>
  seconds < -0.5 ? `-${showClock(Math.round(-seconds))}` : showClock(Math.max(0, Math.round(seconds)));

/** Seconds of "2:05", "-0:30" or "95"; null for anything else. */
export function readClock(text: string): number | null {
  const match = /^\s*([-−])?(?:(\d{1,3}):)?(\d{1,4})\s*$/.exec(text);
  if (!match) return null;
  const [, sign, minutes, seconds] = match;
  if (minutes !== undefined && Number(seconds) > 59) return null;
  return (sign ? -1 : 1) * (Number(minutes ?? 0) * 60 + Number(seconds));
}
