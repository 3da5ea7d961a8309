/**
 * A try on a real scale, or a bridged one: the weight over time is scored; where the water fell nobody sees.
 */
import { useEffect, useRef } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { shouldFlow, type Drill, type Sample } from '@even-kettle/core/practice';
import { useScale } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Text } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { HoldToPour } from '../../parts/hands/hold-to-pour';
import { Canvas, type Painter } from './canvas';
import { drawLine } from './line-canvas';
import { Readings } from './readings';
import { useFrames } from './use-frames';
import { WORDS } from './words';

type Props = {
  drill: Drill;
  stationId: string;
  ghost: readonly Sample[];
  onDone: (samples: Sample[]) => void;
  onStop: () => void;
};

/** What changes with every frame; nothing of it is React's. */
type Live = {
  /** The least that it read before the pour, and what it reads, grams. */
  restG: number | null;
  massG: number;
  flowGPerS: number;
  begunMs: number | null;
  samples: Sample[];
  isDone: boolean;
};

const LINE_H = 220;
const SAMPLE_S = 0.1;
/** Water counts as running from so much more than at rest on, grams. */
const BEGINS_G = 1.5;

export function ScalePlay({ drill, stationId, ghost, onDone, onStop }: Props) {
  const theme = useTheme();
  const scale = useScale(stationId);
  const width = Math.min(560, useWindowDimensions().width - 24);
  const line = useRef<Painter>(null);
  const live = useRef<Live>({
    restG: null,
    massG: 0,
    flowGPerS: 0,
    begunMs: null,
    samples: [],
    isDone: false,
  });
  useEffect(() => {
    if (!scale?.connected) return;
    const now = live.current;
    Object.assign(now, { massG: scale.massG, flowGPerS: scale.flowGPerS });
    // At rest it creeps and is tared; what it reads then is where the pour starts from.
    if (now.begunMs === null) now.restG = Math.min(now.restG ?? scale.massG, scale.massG);
  }, [scale]);
  const read = () => {
    const { begunMs, restG, massG } = live.current;
    const timeS = begunMs === null ? 0 : (performance.now() - begunMs) / 1000;
    return { timeS, hasBegun: begunMs !== null, cellG: Math.max(0, massG - (restG ?? massG)) };
  };
  useFrames(true, () => {
    const now = live.current;
    if (now.begunMs === null && read().cellG >= BEGINS_G) now.begunMs = performance.now();
    const { timeS, hasBegun, cellG } = read();
    // A scale may say nothing while nothing changes: what it said last still stands.
    if (hasBegun && timeS >= (now.samples.at(-1)?.s ?? -SAMPLE_S) + SAMPLE_S)
      now.samples.push({ s: timeS, g: cellG, flowGPerS: now.flowGPerS, at: null });
    line.current?.((context) =>
      drawLine(context, { width, height: LINE_H }, { drill, atS: timeS, samples: now.samples, ghost }, theme),
    );
    if (timeS < drill.endS || now.isDone) return;
    now.isDone = true;
    onDone(now.samples);
  });
  if (!scale?.connected)
    return (
      <View style={{ gap: 12, alignItems: 'flex-start' }}>
        <Text role="alert">{WORDS.scaleIsAway}</Text>
        <Button label={WORDS.otherDrill} onPress={onStop} />
      </View>
    );
  return (
    <View style={{ gap: 10, width, alignSelf: 'center' }} testID="scale-play">
      <Readings drill={drill} run={read} flow={() => live.current.flowGPerS} />
      <Canvas width={width} height={LINE_H} label={WORDS.lineOfWeight} ref={line} />
      <Text size="small" quiet>
        {WORDS.pourOnTheScale} {WORDS.hot}
      </Text>
      {scale.simulated ? <HoldToPour stationId={stationId} flowGPerS={shouldFlow(drill, 0)} /> : null}
      <Button label={WORDS.stopThisTry} onPress={onStop} style={{ alignSelf: 'flex-start' }} />
    </View>
  );
}
