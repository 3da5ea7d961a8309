/**
 * How far a step should be by now, and how far it is: for a pour what the scale should read, and reads.
 */
import { View, type ViewStyle } from 'react-native';
import { anchorMs, bedShowsMs, paceOf } from '@even-kettle/core/brew';
import { SOON_MS, latenessOf, type AgendaItem } from '@even-kettle/core/plan';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { useNow, useScale } from '../../client/bar-context';
import { useTheme } from '../../ui/use-theme';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { cueClock, cueShare } from './cue';
import { WORDS } from './words';

type Props = { item: AgendaItem; units: Units };

/** Within this of where it should be a hand is on pace, grams, or this long of its own flow, seconds. */
const ON_PACE_G = 3;
const ON_PACE_S = 0.7;

export function Pace({ item, units }: Props) {
  const nowMs = useNow();
  const scale = useScale(item.station.id);
  const { step } = item;
  const begunMs = item.asks === 'start' ? null : item.fromMs;
  const forS = begunMs === null ? 0 : (nowMs - begunMs) / 1000;
  const readingG = scale?.connected && step.kind === 'pour' ? scale.massG : null;
  const pace = item.asks === 'cue' ? null : paceOf(step, forS, readingG);
  const share =
    item.asks === 'cue'
      ? cueShare(item, nowMs)
      : (pace?.shouldShare ?? (begunMs === null ? 0 : within(forS / step.durationS)));
  const zeroMs = item.brew ? anchorMs(item.brew, nowMs) : null;
  const late = latenessOf(item, nowMs, scale?.connected);
  const told = late && late.cost !== 'nothing' && (late.leftMs === null || late.leftMs < 0) ? late : null;
  return (
    <View style={{ gap: 2 }}>
      <PaceBar
        share={begunMs === null ? 0 : share}
        readShare={pace?.readShare ?? null}
        leftS={
          item.asks === 'cue' ? (item.dueMs - nowMs) / 1000 : begunMs === null ? null : step.durationS - forS
        }
      />
      <Row style={{ justifyContent: 'space-between', minHeight: 24 }}>
        {told ? (
          <Late lateMs={told.byMs} />
        ) : pace && pace.aheadG !== null && begunMs !== null ? (
          <Ahead aheadG={pace.aheadG} flowGPerS={scale!.flowGPerS} step={step} units={units} />
        ) : (
          <Text quiet>{paceWords(item, nowMs, forS, begunMs !== null, pace?.shouldG ?? null, units)}</Text>
        )}
        {zeroMs !== null && item.asks !== 'cue' ? (
          <Text testID="brew-clock">{showClock(Math.max(0, nowMs - zeroMs) / 1000)}</Text>
        ) : null}
      </Row>
      {told ? (
        <Text size="small" testID="late-cost">
          {told.words}
        </Text>
      ) : null}
    </View>
  );
}

/** The track: pale up to where it should be, filled to where it is; a mark of ink where it should be now. */
function PaceBar({
  share,
  readShare,
  leftS,
}: {
  share: number;
  readShare: number | null;
  leftS: number | null;
}) {
  const theme = useTheme();
  const percent = (value: number) => `${Math.min(1, value) * 100}%` as const;
  return (
    <View
      role="progressbar"
      aria-label={WORDS.stepProgress}
      aria-valuenow={Math.round(Math.min(1, share) * 100)}
      aria-valuemin={0}
      aria-valuemax={100}
      {...(leftS === null ? {} : { 'aria-valuetext': WORDS.sMore(Math.max(0, Math.ceil(leftS))) })}
      style={{ height: 26, borderRadius: 3, backgroundColor: theme.coolPale, overflow: 'hidden' }}
    >
      <View
        style={{
          width: percent(readShare ?? share),
          height: '100%',
          backgroundColor: theme.cool,
        }}
      />
      {readShare !== null ? (
        <View
          style={{
            position: 'absolute',
            left: percent(share),
            top: 0,
            bottom: 0,
            width: 4,
            marginLeft: -2,
            backgroundColor: theme.ink,
          }}
        />
      ) : null}
    </View>
  );
}

function Ahead({
  aheadG,
  flowGPerS,
  step,
  units,
}: {
  aheadG: number;
  flowGPerS: number;
  step: AgendaItem['step'];
  units: Units;
}) {
  const slack = Math.max(ON_PACE_G, ON_PACE_S * (step.flowGPerS ?? 0));
  const words =
    Math.abs(aheadG) <= slack
      ? WORDS.onPace
      : `${inWords(showMass(Math.abs(aheadG), units, 'water'))} ${aheadG > 0 ? 'ahead' : 'behind'}`;
  return (
    <Text bold testID="pace">
      {words}
      <Text quiet>{WORDS.ofGS(flowGPerS.toFixed(1), step.flowGPerS!)}</Text>
    </Text>
  );
}

function paceWords(
  item: AgendaItem,
  nowMs: number,
  forS: number,
  begun: boolean,
  shouldG: number | null,
  units: Units,
): string {
  const { step, card, awaited } = item;
  if (item.asks === 'cue') {
    const { lessS } = cueClock(item, nowMs) ?? { lessS: 0 };
    const window = awaited?.cueWindowS ?? card.brewWindowS;
    return awaited?.cueWindowS || awaited?.kind === 'drawdown'
      ? WORDS.expectedTo(showClock(window.from - lessS), showClock(window.to - lessS))
      : WORDS.aboutS(awaited?.durationS ?? step.durationS);
  }
  if (shouldG !== null) {
    if (!begun) return WORDS.startsWithFirstWater;
    if (step.byEye) return WORDS.sMore(Math.max(0, Math.ceil(step.durationS - forS)));
    return WORDS.scaleShouldRead(inWords(showMass(shouldG, units, 'water')));
  }
  if (step.stirs && begun)
    return WORDS.stirOf(
      Math.min(step.stirs, Math.max(1, Math.ceil((forS / step.durationS) * step.stirs))),
      step.stirs,
    );
  return item.asks === 'runs' ? WORDS.goesOnByItself : WORDS.aboutS(step.durationS);
}

const within = (share: number): number => Math.min(1, Math.max(0, share));

const NOTCH = 'polygon(0 0, 100% 0, 100% 100%, 0 100%, 7px 50%)';

/** Late is the flame and a notch, never another red. */
function Late({ lateMs }: { lateMs: number }) {
  const theme = useTheme();
  const notch = { clipPath: NOTCH } as ViewStyle;
  return (
    <View style={[{ backgroundColor: theme.flame, paddingLeft: 14, paddingRight: 8 }, notch]}>
      <Text bold color={theme.onFlame}>
        {WORDS.late(showClock(lateMs / 1000))}
      </Text>
    </View>
  );
}

/** The wait until a step is due; while a bed drains, also how long it stays covered. */
export function Countdown({ item }: Omit<Props, 'units'>) {
  const nowMs = useNow();
  const theme = useTheme();
  const leftMs = Math.max(0, item.dueMs - nowMs);
  const soon = leftMs <= SOON_MS;
  const showsMs = item.brew && item.step.kind === 'pour' ? bedShowsMs(item.brew, nowMs) : null;
  const bedLeftMs = showsMs === null ? null : showsMs - nowMs;
  const next = item.station.free ? WORDS.nextIn : WORDS.whenIsFreeIn(item.station.name);
  const left = showClock(Math.ceil(leftMs / 1000));
  const bed =
    bedLeftMs === null
      ? null
      : bedLeftMs > 0
        ? WORDS.theBedShowsIn(showClock(Math.ceil(bedLeftMs / 1000)))
        : WORDS.theBedShows;
  return (
    <View
      role="timer"
      // Read in one piece: side by side, the two times would be read in each other's place.
      aria-label={`${next} ${left}${bed ? `; ${bed}` : ''}`}
      style={{
        backgroundColor: soon ? theme.soon : theme.coolPale,
        borderRadius: RADIUS,
        paddingHorizontal: 12,
        paddingVertical: 7,
        minHeight: 52,
        flexDirection: 'row',
        justifyContent: 'space-between',
        alignItems: 'center',
      }}
    >
      <View aria-hidden>
        <Text>{next}</Text>
        {bed ? (
          <Text size="small" quiet testID="bed">
            {bed}
          </Text>
        ) : null}
      </View>
      <Text size="verb" testID="countdown" aria-hidden>
        {left}
      </Text>
    </View>
  );
}
