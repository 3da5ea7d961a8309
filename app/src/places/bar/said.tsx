/**
 * What the card says beside its one action, in at most one strip at a time: a caution before a danger, what a pour came
 * to, or what can be noted on the spot with what to do about it.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { Touch } from '../../ui/touch';
import {
  factsOf,
  noteWords,
  notesFor,
  pourOutcome,
  type BrewState,
  type Note,
  type PourOutcome,
} from '@even-kettle/core/brew';
import type { AgendaItem } from '@even-kettle/core/plan';
import { CAUTIONS, METHODS, cautionFor } from '@even-kettle/core/recipe';
import { inWords, showMass } from '@even-kettle/core/units';
import { useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { outcomeWords } from '../../words/outcome-words';
import { setDevice, useDevice } from '../../device/settings';
import { dayOfMs } from '../../ui/days';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { RADIUS, TOUCH } from '../../ui/theme';
import { WORDS } from './words';

/** How long the outcome of a pour stays in sight, milliseconds of bar time; longer where it asks for something. */
const FINE_MS = 6000;
const OFF_MS = 30_000;
/** What to do about a note stays this long. */
const NOTED_MS = 60_000;

export function Said({ item, nowMs }: { item: AgendaItem; nowMs: number }) {
  const device = useDevice();
  const outcome = item.brew ? outcomeNow(item.brew, nowMs) : null;
  const noted = item.brew?.notes?.findLast(({ atMs }) => nowMs - atMs < NOTED_MS);
  const watched = item.awaited ?? item.step;
  const caution = item.asks === 'cue' ? null : cautionFor(item.step, item.card.method);
  // A shift is a day where the bar stands.
  if (caution && device.cautionsRead[caution] !== dayOfMs(nowMs))
    return (
      <Strip
        says={WORDS.caution}
        words={CAUTIONS[caution]}
        action={
          <Button
            kind="bare"
            icon="check"
            label={WORDS.readLabel}
            says={WORDS.readForThisShift}
            onPress={() => setDevice({ cautionsRead: { ...device.cautionsRead, [caution]: dayOfMs(nowMs) } })}
          />
        }
      />
    );
  if (item.brew && noted)
    return <Strip says={WORDS.toDo} words={noteWords(noted.note, item.card.method).now} testID="remedy" />;
  if (item.brew && outcome) return <Outcome brew={item.brew} outcome={outcome} />;
  // In mid-pour nobody reads chips; they are on the station's page, and here while something is watched.
  const notes = item.brew && item.asks === 'cue' ? notesFor(item.card.method, watched) : [];
  return item.brew && notes.length > 0 ? <Notes key={item.brewId} brew={item.brew} notes={notes} /> : null;
}

function outcomeNow(brew: BrewState, nowMs: number): PourOutcome | null {
  const outcome = pourOutcome(brew.planned, brew.card, factsOf(brew));
  const doneMs = outcome && brew.marks[outcome.stepId]?.doneMs;
  if (!outcome || doneMs === undefined || doneMs === null) return null;
  return nowMs - doneMs < (outcome.verdict === 'fine' ? FINE_MS : OFF_MS) ? outcome : null;
}

function Outcome({ brew, outcome }: { brew: BrewState; outcome: PourOutcome }) {
  const units = useUnits();
  const act = useAct();
  const targetG = brew.marks[outcome.stepId]?.targetG;
  const pourOn = () =>
    act(
      [
        {
          type: 'step-corrected',
          brewId: brew.id,
          stepId: outcome.stepId,
          readingG: targetG!,
        },
      ],
      WORDS.pouredOn,
    );
  const short = outcome.final && outcome.verdict === 'short' && targetG !== undefined;
  return (
    <Strip
      says={WORDS.thePour}
      words={outcomeWords(outcome, units)}
      testID="outcome"
      action={
        short ? (
          <Button
            label={WORDS.pouredOnTo(inWords(showMass(targetG, units, 'water')))}
            onPress={pourOn}
            style={{ paddingHorizontal: 8 }}
          />
        ) : null
      }
    />
  );
}

type NotesProps = {
  brew: BrewState;
  notes: Note[];
  /** Those that can be true just now; the others keep their place, and wait. All of them where it is left out. */
  fits?: Note[];
  /** All at once, none behind "Other…". */
  all?: boolean;
};

/** One tap says what is seen; the strip then says what to do. */
export function Notes({ brew, notes, fits = notes, all = false }: NotesProps) {
  const act = useAct();
  const [open, setOpen] = useState(all);
  const shown = open ? notes : notes.slice(0, 2);
  const note = (what: Note) => {
    const { name } = noteWords(what, brew.card.method);
    act([{ type: 'brew-noted', brewId: brew.id, note: what }], name);
  };
  return (
    <Row style={{ flexWrap: 'wrap', gap: 6, rowGap: 6 }}>
      {shown.map((what) => (
        <Button
          key={what}
          label={noteWords(what, brew.card.method).name}
          disabled={!fits.includes(what)}
          onPress={() => note(what)}
          style={{ paddingHorizontal: 10 }}
        />
      ))}
      {notes.length > shown.length ? (
        <Button
          kind="bare"
          label={WORDS.other}
          onPress={() => setOpen(true)}
          style={{ paddingHorizontal: 8 }}
        />
      ) : null}
    </Row>
  );
}

function Strip({
  says,
  words,
  action,
  testID,
}: {
  says: string;
  words: string;
  action?: React.ReactNode;
  testID?: string;
}) {
  const theme = useTheme();
  return (
    <View
      role="note"
      aria-label={says}
      testID={testID}
      style={{
        borderLeftWidth: 4,
        borderColor: theme.ink,
        backgroundColor: theme.bg,
        borderRadius: 3,
        paddingLeft: 10,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        minHeight: TOUCH,
      }}
    >
      <Text size="small" style={{ flex: 1, paddingVertical: 4 }}>
        {words}
      </Text>
      {action}
    </View>
  );
}

/** The tare, and the rinse water, by name: each to be ticked off, none of them in the way. */
export function Checklist({ item }: { item: AgendaItem }) {
  const theme = useTheme();
  const [done, setDone] = useState<{ key: string; ticked: string[] }>({ key: item.key, ticked: [] });
  const ticked = done.key === item.key ? done.ticked : [];
  const parts = checklistOf(item);
  if (parts.length === 0) return null;
  return (
    <View role="group" aria-label={WORDS.beforeThisIsDone} style={{ flexDirection: 'row', gap: 6 }}>
      {parts.map((part) => {
        const on = ticked.includes(part);
        return (
          <Touch
            key={part}
            role="checkbox"
            aria-checked={on}
            aria-label={part}
            onPress={() =>
              setDone({
                key: item.key,
                ticked: on ? ticked.filter((each) => each !== part) : [...ticked, part],
              })
            }
            style={{
              flex: 1,
              minHeight: TOUCH,
              borderRadius: RADIUS,
              borderWidth: 1,
              borderStyle: on ? 'solid' : 'dashed',
              borderColor: on ? theme.ink : theme.ink2,
              backgroundColor: on ? theme.coolPale : 'transparent',
              alignItems: 'center',
              justifyContent: 'center',
              paddingHorizontal: 4,
            }}
          >
            <Text size="small" bold={on} style={{ textAlign: 'center' }}>
              {on ? `✓ ${part}` : part}
            </Text>
          </Touch>
        );
      })}
    </View>
  );
}

function checklistOf({ step, card, brew }: AgendaItem): readonly string[] {
  if (step.kind !== 'load') return [];
  const rinsed = card.steps.some(({ kind }) => kind === 'set-filter');
  const { checklist } = METHODS[card.method];
  if (checklist) return checklist;
  const level =
    card.bed === 'none'
      ? WORDS.coffeeIn
      : card.bed === 'level'
        ? WORDS.coffeeInLevel
        : WORDS.coffeeInForBed(card.bed);
  return [...(rinsed ? [WORDS.rinseWaterOut] : []), level, ...(brew?.withoutScale ? [] : [WORDS.tared])];
}
