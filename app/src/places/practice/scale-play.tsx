/**
 * A try on a real scale, or a bridged one: the weight over time is scored; where the water fell nobody sees.
 */
import { useEffect, useRef, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import type { Drill, Sample } from '@even-kettle/core/practice';
import { showMass } from '@even-kettle/core/units';
import { useScale, useUnits } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { HoldToPour } from '../bar/hold-to-pour';
import { Canvas, type Painter } from './canvas';
import { aheadInWords, clockOf, whatNow } from './instruction';
import { drawLine } from './line-canvas';
import { useFrames } from './use-frames';
import { WORDS } from './words';

type Props = {
  drill: Drill;
  stationId: string;
  ghost: readonly Sample[];
  onDone: (samples: Sample[]) => void;
  onStop: () => void;
};

const LINE_H = 220;
/** Water counts as running from so much more than at rest on, grams. */
const BEGINS_G = 1.5;
/** On a scale's stand-in the flow of the drill's first pour is poured while the button is held. */
const USUAL_G_PER_S = 5;

export function ScalePlay({ drill, stationId, ghost, onDone, onStop }: Props) {
  const theme = useTheme();
  const units = useUnits();
  const scale = useScale(stationId);
  const width = Math.min(560, useWindowDimensions().width - 24);
  const line = useRef<Painter>(null);
  const at = useRef<{
    restG: number | null;
    begunMs: number | null;
    lastMs: number;
    samples: Sample[];
    isDone: boolean;
  }>({
    restG: null,
    begunMs: null,
    lastMs: 0,
    samples: [],
    isDone: false,
  });
  const [shown, setShown] = useState({ s: 0, g: 0, hasBegun: false });
  useEffect(() => {
    if (!scale?.connected || scale.atMs <= at.current.lastMs) return;
    const now = at.current;
    now.lastMs = scale.atMs;
    now.restG =
      now.restG === null ? scale.massG : now.begunMs === null ? Math.min(now.restG, scale.massG) : now.restG;
    const g = scale.massG - now.restG;
    if (now.begunMs === null && g < BEGINS_G) return setShown({ s: 0, g: Math.max(0, g), hasBegun: false });
    now.begunMs ??= performance.now();
    const s = (performance.now() - now.begunMs) / 1000;
    now.samples.push({ s, g, flowGPerS: scale.flowGPerS, at: null });
    setShown({ s, g, hasBegun: true });
  }, [scale]);
  useFrames(true, () => {
    const { begunMs, samples } = at.current;
    const s = begunMs === null ? 0 : (performance.now() - begunMs) / 1000;
    line.current?.((context) =>
      drawLine(context, { width, height: LINE_H }, { drill, atS: s, samples, ghost }, theme),
    );
    if (s < drill.endS || at.current.isDone) return;
    at.current.isDone = true;
    onDone(samples);
  });
  if (!scale?.connected)
    return (
      <View style={{ gap: 12, alignItems: 'flex-start' }}>
        <Text role="alert">{WORDS.scaleIsAway}</Text>
        <Button label={WORDS.otherDrill} onPress={onStop} />
      </View>
    );
  const run = { timeS: shown.s, hasBegun: shown.hasBegun, cellG: shown.g };
  return (
    <View style={{ gap: 10, width, alignSelf: 'center' }} testID="scale-play">
      <Row style={{ alignItems: 'flex-end', justifyContent: 'space-between' }}>
        <Text size="figure" testID="drill-reading">
          {showMass(shown.g, units, 'water').figure}
        </Text>
        <View style={{ alignItems: 'flex-end' }}>
          <Text size="clock">{clockOf(shown.s)}</Text>
          <Text size="clock">{WORDS.flow(scale.flowGPerS.toFixed(1))}</Text>
          <Text>{aheadInWords(drill, run, units)}</Text>
        </View>
      </Row>
      <Text size="verb" style={{ minHeight: 56 }}>
        {whatNow(drill, run, units)}
      </Text>
      <Canvas width={width} height={LINE_H} label={WORDS.lineOfWeight} ref={line} />
      <Text size="small" quiet>
        {WORDS.pourOnTheScale} {WORDS.hot}
      </Text>
      {scale.standIn ? <HoldToPour stationId={stationId} flowGPerS={USUAL_G_PER_S} /> : null}
      <Button label={WORDS.stopThisTry} onPress={onStop} style={{ alignSelf: 'flex-start' }} />
    </View>
  );
}
