/**
 * One finished brew in the list: what it was, how long it took against its plan, what was tasted.
 */
import { View } from 'react-native';
import { Link } from '../../ui/link';
import { tasteInWords } from '@even-kettle/core/brew';
import type { BrewRecord } from '@even-kettle/core/contract';
import { speedOf, type Speed } from '@even-kettle/core/learn';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass } from '@even-kettle/core/units';
import { useHere, useUnits } from '../../client/bar-context';
import { dayAndTime } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { useTheme } from '../../ui/use-theme';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from './words';

type Props = {
  record: BrewRecord;
  /** Where it is shown beside the list rather than on a page of its own. */
  beside?: { isOpen: boolean; onOpen: () => void } | undefined;
};

export function Brewed({ record, beside }: Props) {
  const theme = useTheme();
  const units = useUnits();
  const { clock } = useHere();
  const ended = dayAndTime(record.endedMs, clock.nowMs());
  const method = METHODS[record.method];
  const taste = record.taste ? tasteInWords(record.taste) : '';
  return (
    <Link
      href={`/log/${encodeURIComponent(record.brewId)}`}
      {...(beside ? { onOpen: beside.onOpen } : {})}
      aria-label={`${record.coffee}, ${method.name}, ${ended}`}
      testID="brewed"
      aria-current={beside?.isOpen ? 'true' : undefined}
    >
      <Card
        style={{ gap: 6, ...(beside?.isOpen ? { borderColor: theme.ink } : {}) }}
        ruled={record.outcome === 'abandoned'}
      >
        <Row>
          {record.fromFile ? null : <Badge badge={record.badge} />}
          <View style={{ flex: 1 }}>
            <Text bold numberOfLines={1}>
              {record.coffee} · {method.name}
            </Text>
            <Text size="small" quiet numberOfLines={1}>
              {ended} · {record.stationName}
            </Text>
          </View>
          <View style={{ alignItems: 'flex-end' }}>
            <Text size="clock" testID="real-time">
              {record.realBrewS === null ? '–' : showClock(record.realBrewS)}
            </Text>
            <Text size="small" quiet>
              {record.outcome === 'abandoned'
                ? WORDS.givenUp
                : WORDS.plannedTime(showClock(record.plannedBrewS))}
            </Text>
          </View>
        </Row>
        {record.realBrewS === null ? null : <PlannedAgainstReal record={record} />}
        <Text size="small">
          {WORDS.to(
            showMass(record.doseG, units, 'dose').figure,
            inWords(showMass(record.brewWaterG, units, 'water')),
            verdict(record),
            taste ? WORDS.tasted(taste) : '',
          )}
        </Text>
      </Card>
    </Link>
  );
}

/** Two lines on one scale: the plan's steps above, what was done below, the window of the end mark between. */
function PlannedAgainstReal({ record }: { record: BrewRecord }) {
  const theme = useTheme();
  const endS = Math.max(record.windowToS, record.realBrewS ?? 0) * 1.04;
  const at = (seconds: number) => `${(Math.max(0, seconds) / endS) * 100}%` as const;
  const mark = (left: number, top: number, width: number | `${number}%`, height: number, color: string) => (
    <View style={{ position: 'absolute', top, left: at(left), width, height, backgroundColor: color }} />
  );
  const pours = record.steps.filter(
    ({ attended, phase, realStartS }) => attended && phase === 'brew' && realStartS !== null,
  );
  return (
    <View aria-hidden style={{ height: 26, marginVertical: 2 }}>
      {mark(record.windowFromS, 0, at(record.windowToS - record.windowFromS), 26, theme.coolPale)}
      {mark(0, 5, at(record.plannedBrewS), 1.5, theme.ink2)}
      {mark(0, 19, at(record.realBrewS ?? 0), 2, theme.cool)}
      {pours.map(({ id, plannedStartS, realStartS, realEndS }) => (
        <View key={id}>
          {mark(plannedStartS, 2, 2, 8, theme.ink2)}
          {mark(realStartS!, 15, at(Math.max(1, (realEndS ?? realStartS!) - realStartS!)), 10, theme.cool)}
        </View>
      ))}
    </View>
  );
}

export function verdict(record: BrewRecord): string {
  if (record.outcome === 'abandoned') return WORDS.stopped(record.reason ?? WORDS.noReasonGiven);
  if (record.aboutBrewS)
    return WORDS.endAskedLate(
      showClock(record.aboutBrewS.s - record.aboutBrewS.plusMinusS),
      showClock(record.aboutBrewS.s + record.aboutBrewS.plusMinusS),
    );
  if (record.realBrewS === null) return WORDS.servedBeforeEnd;
  const off = Math.round(record.realBrewS - record.plannedBrewS);
  const against =
    off === 0 ? WORDS.asPlanned : WORDS.thanPlanned(showClock(Math.abs(off)), off > 0 ? 'longer' : 'shorter');
  const speed = speedOf(record.realBrewS, { from: record.windowFromS, to: record.windowToS });
  return WORDS.itsWindow(against, WINDOW_WORDS[speed]);
}

const WINDOW_WORDS: Record<Speed, string> = { fast: 'under', 'in time': 'inside', slow: 'over' };
