/**
 * What the card says beside its one action, in at most one strip at a time: a caution before a danger, what a pour came
 * to, or what can be noted on the spot with what to do about it.
 */
import { memo, useState } from 'react';
import { View } from 'react-native';
import { Touch } from '../../ui/touch';
import {
  factsOf,
  noteWords,
  notesFor,
  pourOutcome,
  remakeS,
  rescueOf,
  rinseLeft,
  type BrewState,
  type Note,
  type PourOutcome,
  type Rescue,
} from '@even-kettle/core/brew';
import { pairOf, reasonOf, type AgendaItem } from '@even-kettle/core/plan';
import { CAUTIONS, METHODS, cautionFor } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass } from '@even-kettle/core/units';
import { CHANGE_SHOWN_MS, useBar, useHere, useNow, useUnits } from '../../client/bar-context';
import { agendaNow } from '../../client/agenda-now';
import { useAct, type NewEvent } from '../../device/use-act';
import { outcomeWords } from '../../words/outcome-words';
import { reasonInWords } from '../../words/plan-words';
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
/** A cup weaker than this, times the planned strength, is offered to be brewed again. */
const SPOILT_SHARE = 0.93;
/** Long enough to clear the station and weigh again. */
const COLLAPSED_MS = 120_000;
/** What to do about a note stays this long. */
const NOTED_MS = 60_000;

/** Nothing in it counts: it is looked at once a second, and as soon as something else is asked for. */
export const CardStrip = memo(function CardStrip({ item }: { item: AgendaItem }) {
  const nowMs = useNow(1000);
  const device = useDevice();
  const { state } = useBar();
  const why = useWhyNow(item, nowMs);
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
  if (why) return <Strip says={WORDS.whyThisNow} words={why} testID="why-now" />;
  const { brew } = item;
  const before = state.brews[item.cup.attempts.at(-1) ?? ''];
  if (before && hasCollapsed(before, nowMs)) return <Collapsed brew={before} />;
  const rescue = brew ? rescueOf(brew, nowMs) : null;
  if (brew && noted && !(rescue && isOfDraining(noted.note))) return <Noted brew={brew} note={noted.note} />;
  if (item.brew && outcome) return <Outcome brew={item.brew} outcome={outcome} />;
  if (rescue) return <Remedies rescue={rescue} />;
  // In mid-pour nobody reads chips; they are on the station's page, and here while something is watched.
  const notes = item.brew && item.asks === 'cue' ? notesFor(item.card.method, watched) : [];
  return item.brew && notes.length > 0 ? <Notes key={item.brewId} brew={item.brew} notes={notes} /> : null;
});

/** Why the card asks for this and not for what it asked for before, while that is new. */
function useWhyNow(item: AgendaItem, nowMs: number): string | null {
  const { state, bar, book, plan, change } = useBar();
  const { hands } = useDevice();
  const { store } = useHere();
  const moves = change && nowMs - change.atMs < CHANGE_SHOWN_MS ? change.moves : [];
  const reason = reasonOf(item, moves, hands);
  if (!reason || !bar) return null;
  const pair = reason.why === 'spoils' ? 0 : reason.pair;
  const theirs = agendaNow(store.view(), nowMs).find((each) => pairOf(each, plan) === pair);
  const by = theirs?.brew?.events.findLast((event) => event.by !== undefined)?.by;
  const name = bar.people.find(({ id }) => id === by)?.name ?? `Hands ${pair + 1}`;
  return reasonInWords(reason, { state, bench: bar, book }, { name, at: theirs?.key });
}

/** The cup's latest brew has just been ended because its bed fell in. */
const hasCollapsed = ({ abandoned, notes }: BrewState, nowMs: number): boolean =>
  abandoned !== undefined &&
  nowMs - abandoned.atMs < COLLAPSED_MS &&
  (notes?.some(({ note }) => note === 'collapsed') ?? false);

const isOfDraining = (note: Note): boolean => note === 'stalled' || note === 'ran-fast';

/** What was noted, with what to do about it now. */
function Noted({ brew, note }: { brew: BrewState; note: Note }) {
  const units = useUnits();
  const { now } = noteWords(note, brew.card.method);
  if (note !== 'rinse-left') return <Strip says={WORDS.toDo} words={now} testID="remedy" />;
  const { rinseG, strengthShare, ratio } = rinseLeft(brew.card);
  const weaker = Math.round((1 - strengthShare) * 100);
  return (
    <Strip
      says={WORDS.toDo}
      words={`${now} ${WORDS.withTheRinse(inWords(showMass(rinseG, units, 'water')), weaker, ratio.toFixed(1))}`}
      testID="remedy"
      action={<BrewAgain brew={brew} reason={WORDS.rinseLeftIn} />}
    />
  );
}

/** The brew ends and its cup waits to be brewed again; the button says how long that takes. */
function BrewAgain({ brew, reason }: { brew: BrewState; reason: string }) {
  const act = useAct();
  return (
    <Button
      label={WORDS.brewAgainIn(showClock(remakeS(brew.card)))}
      onPress={() => act([{ type: 'brew-abandoned', brewId: brew.id, reason }], WORDS.startThisCupAgain)}
      testID="brew-again"
      style={{ paddingHorizontal: 8 }}
    />
  );
}

/** What helps a brew that drains too slowly or too fast, each with what it should do to the time. */
function Remedies({ rescue }: { rescue: Rescue }) {
  const lines = rescue.remedies.map(({ words, byS }) =>
    WORDS.remedyWithTime(words, showClock(Math.abs(byS)), byS < 0 ? 'sooner' : 'later'),
  );
  return (
    <Strip
      says={WORDS.toDo}
      words={[rescue.runs === 'slow' ? WORDS.itRunsLong : WORDS.itRunsFast, ...lines].join('\n')}
      testID="rescue"
    />
  );
}

function Collapsed({ brew }: { brew: BrewState }) {
  const units = useUnits();
  return (
    <Strip
      says={WORDS.toDo}
      words={WORDS.brewedAgainWeigh(inWords(showMass(brew.planned.doseG, units, 'dose')))}
      testID="remedy"
    />
  );
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
  // Far over, with nothing to leave out, the cup is better brewed again.
  const spoilt =
    outcome.final &&
    outcome.verdict === 'over' &&
    outcome.bypassLessG === 0 &&
    (outcome.strengthShare ?? 0) < SPOILT_SHARE;
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
        ) : spoilt ? (
          <BrewAgain brew={brew} reason={WORDS.pouredOver} />
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
    const noted: NewEvent = { type: 'brew-noted', brewId: brew.id, note: what };
    // A bed that has fallen in makes no cup: it is begun again in the same tap.
    const ends: NewEvent[] =
      what === 'collapsed' ? [{ type: 'brew-abandoned', brewId: brew.id, reason: name.toLowerCase() }] : [];
    act([noted, ...ends], name);
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
export const Checklist = memo(function Checklist({ item }: { item: AgendaItem }) {
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
});

function checklistOf({ step, card, brew }: AgendaItem): readonly string[] {
  if (step.kind === 'press') return [WORDS.offTheScale];
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
