/**
 * What a try was worth: its score, what was measured, and one thing to change.
 */
import { useEffect, useRef } from 'react';
import { View, useWindowDimensions } from 'react-native';
import {
  MEASURES,
  drillKey,
  type Drill,
  type Measure,
  type PourScore,
  type PourTry,
  type Sample,
} from '@even-kettle/core/practice';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { useUnits } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { Canvas, type Painter } from './canvas';
import { drawLine } from './line-canvas';
import { useTries } from './kept-tries';
import { Keep } from './keep';
import { TriesChart } from './tries-chart';
import { WORDS } from './words';

type Props = {
  drill: Drill;
  tried: PourTry;
  scored: PourScore;
  samples: readonly Sample[];
  ghost: readonly Sample[];
  onAgain: () => void;
  onOther: () => void;
  /** Null where nobody practises who could wish it. */
  onRecord: (() => Promise<void>) | null;
  onFollow: () => Promise<void>;
};

const LINE_H = 130;

export function PourResult({
  drill,
  tried,
  scored,
  samples,
  ghost,
  onAgain,
  onOther,
  onRecord,
  onFollow,
}: Props) {
  const units = useUnits();
  const tries = useTries().filter(
    (each) =>
      drillKey(each) === drillKey(tried) && each.person === tried.person && each.onScale === tried.onScale,
  );
  return (
    <View style={{ gap: 12 }} testID="pour-result">
      <Card>
        <Row style={{ alignItems: 'baseline' }}>
          <Text size="figure" testID="score">
            {String(scored.score)}
          </Text>
          <Text size="title">{WORDS.of100}</Text>
        </Row>
        <Subheading>{WORDS.next}</Subheading>
        <Text testID="advice">{adviceInWords(scored, units)}</Text>
        {scored.dryS !== null && drill.dryS ? (
          <Text size="small">
            {WORDS.dryAt(
              showClock(Math.round(scored.dryS)),
              showClock(drill.dryS.from),
              showClock(drill.dryS.to),
              scored.dryS >= drill.dryS.from && scored.dryS <= drill.dryS.to,
            )}
          </Text>
        ) : null}
        <Row style={{ flexWrap: 'wrap' }}>
          <Button kind="main" label={WORDS.tryAgain} onPress={onAgain} testID="try-again" />
          <Button label={WORDS.otherDrill} onPress={onOther} />
        </Row>
      </Card>
      <Card>
        <Subheading>{WORDS.measured}</Subheading>
        <WholeLine drill={drill} samples={samples} ghost={ghost} />
        {MEASURES.filter((measure) => (drill.weights[measure] ?? 0) > 0).map((measure) => (
          <Row key={measure} style={{ justifyContent: 'space-between' }}>
            <Text>{WORDS.measure[measure]}</Text>
            <Text bold>{measureInWords(measure, scored.measures[measure], units)}</Text>
          </Row>
        ))}
      </Card>
      <TriesChart tries={tries} />
      <Keep onRecord={onRecord} onFollow={tried.onScale ? null : onFollow} />
    </View>
  );
}

function WholeLine({ drill, samples, ghost }: Pick<Props, 'drill' | 'samples' | 'ghost'>) {
  const theme = useTheme();
  const page = useWindowDimensions().width;
  const width = Math.min(700, page - 54);
  const paint = useRef<Painter>(null);
  useEffect(() => {
    paint.current?.((context) =>
      drawLine(context, { width, height: LINE_H }, { drill, atS: null, samples, ghost }, theme),
    );
  }, [drill, samples, ghost, theme, width]);
  return <Canvas width={width} height={LINE_H} label={WORDS.lineOfWeight} ref={paint} />;
}

const mass = (g: number, units: Units): string => inWords(showMass(Math.round(g), units, 'water'));

export function adviceInWords({ advice, overG, lateS, fasterBy }: PourScore, units: Units): string {
  const { advise } = WORDS;
  switch (advice) {
    case null:
      return WORDS.nothingToChange;
    case 'overshootG':
      return advise.overshootG(overG > 0, mass(Math.max(1, Math.abs(overG)), units));
    case 'rhythmS':
      return advise.rhythmS(lateS > 0, WORDS.seconds(Math.max(1, Math.round(Math.abs(lateS)))));
    case 'lineG':
    case 'flowOff':
      return advise[advice](fasterBy > 0.05);
    default:
      return advise[advice];
  }
}

export function measureInWords(measure: Measure, value: number | null, units: Units): string {
  if (value === null) return WORDS.notKnown;
  switch (measure) {
    case 'lineG':
    case 'overshootG':
      return inWords(showMass(value, units, 'dose'));
    case 'rhythmS':
      return WORDS.seconds(value.toFixed(1));
    case 'uneven':
      return WORDS.variation(Math.round(value * 100));
    default:
      return WORDS.percent(Math.round(value * 100));
  }
}
