/**
 * One try at a pour drill on the modelled bed: the finger, or the pointer, is the spout; the other thumb, the wheel or the
 * same finger drawn down tilts the kettle.
 */
import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { lipOf, outlineOf, spoutOf, type BedPoint, type Hand, type PourHeight } from '@even-kettle/core/pour';
import {
  STEP_S,
  freshRun,
  isOver,
  kettleFor,
  pourAt,
  scaleFlow,
  stepRun,
  type Drill,
  type PourRun,
  type Sample,
} from '@even-kettle/core/practice';
import { sound, unlockTones } from '../../device/tones';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { WIDE } from '../../ui/theme';
import { useTheme } from '../../ui/use-theme';
import { HEIGHT_WORDS } from '../../words/path-words';
import { ROUND_IT, bedCanvas, type BedShown } from './bed-canvas';
import { Canvas, type Painter } from './canvas';
import { drawLine } from './line-canvas';
import { Readings } from './readings';
import { TiltBar, type ShowTilt } from './tilt-bar';
import { useFrames } from './use-frames';
import { WORDS } from './words';

/** How the kettle is tilted: by the other thumb (or the wheel), or by how far the pouring finger is drawn down. */
export type TiltBy = 'thumb' | 'same finger';

type Props = {
  drill: Drill;
  hand: Hand;
  tiltBy: TiltBy;
  /** Another pour to see beside one's own; empty for none. */
  ghost: readonly Sample[];
  /** The recipe's path is shown. */
  showsPath: boolean;
  onDone: (run: PourRun) => void;
  onStop: () => void;
};

/** Drawn down so far from where it first touched, the kettle is tilted all the way, pixels. */
const DRAWN_PX = 160;
const LINE_H = 96;
const BAR_W = 72;
const WHEEL = 0.0006;
const KEY = 0.04;

/** What changes with every frame; nothing of it is React's. */
type Live = {
  run: PourRun;
  at: BedPoint | null;
  tilt: number;
  leftS: number;
  height: PourHeight;
  firstY: number;
  beat: number;
  isDone: boolean;
};

export function PourPlay({ drill, hand, tiltBy, ghost, showsPath, onDone, onStop }: Props) {
  const theme = useTheme();
  const { width, height } = useWindowDimensions();
  const room = width >= WIDE ? 560 : width - 24;
  const size = Math.round(Math.min(room - BAR_W - 10, Math.max(220, height - 470)));
  const drawing = useMemo(() => bedCanvas(size), [size]);
  const nature = useMemo(() => kettleFor(drill), [drill]);
  const live = useRef<Live>({
    run: freshRun(drill),
    at: null,
    tilt: 0,
    leftS: 0,
    height: 'low',
    firstY: 0,
    beat: 0,
    isDone: false,
  });
  const [pourHeight, setPourHeight] = useState<PourHeight>('low');
  const bed = useRef<Painter>(null);
  const line = useRef<Painter>(null);
  const bar = useRef<ShowTilt>(null);
  const setTilt = (tilt: number) => {
    live.current.tilt = Math.min(1, Math.max(0, tilt));
  };
  const choose = (chosen: PourHeight) => {
    live.current.height = chosen;
    setPourHeight(chosen);
  };
  useKeys(live, setTilt, choose);

  useFrames(true, (forS) => {
    const now = live.current;
    now.leftS += forS;
    while (now.leftS >= STEP_S) {
      now.leftS -= STEP_S;
      now.run = stepRun(now.run, drill, now, nature);
    }
    tick(now, drill);
    bar.current?.(now.tilt, lipOf(now.run.kettle, nature));
    bed.current?.((context) => drawing.draw(context, shownOf(now, drill, hand, ghost, showsPath), theme));
    line.current?.((context) =>
      drawLine(
        context,
        { width: room, height: LINE_H },
        { drill, atS: now.run.timeS, samples: now.run.samples, ghost },
        theme,
      ),
    );
    // Frames go on until React has taken this away.
    if (!isOver(now.run, drill) || now.isDone) return;
    now.isDone = true;
    onDone(now.run);
  });

  /** The bed's middle is 0, its wall 1. */
  const spotOf = ({ clientX, clientY, currentTarget }: PointerEvent<HTMLElement>): BedPoint => {
    const box = currentTarget.getBoundingClientRect();
    const wall = box.width / 2 / ROUND_IT;
    return {
      x: (clientX - box.left - box.width / 2) / wall,
      y: (box.top + box.height / 2 - clientY) / wall,
    };
  };
  const moved = (event: PointerEvent<HTMLElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    live.current.at = spotOf(event);
    if (tiltBy === 'same finger') setTilt((event.clientY - live.current.firstY) / DRAWN_PX);
  };
  const lifted = () => {
    live.current.at = null;
    if (tiltBy === 'same finger') setTilt(0);
  };
  const wheel = useRef<HTMLDivElement>(null);
  useWheel(wheel, (by) => setTilt(live.current.tilt + by));

  return (
    <View style={{ gap: 8, alignSelf: 'center', width: room }} testID="pour-play">
      <Readings drill={drill} run={() => live.current.run} flow={() => scaleFlow(live.current.run)} />
      <Canvas width={room} height={LINE_H} label={WORDS.lineOfWeight} ref={line} />
      <Row
        style={{ flexDirection: hand === 'right' ? 'row-reverse' : 'row', justifyContent: 'space-between' }}
      >
        <div
          ref={wheel}
          data-testid="bed"
          role="img"
          aria-label={WORDS.bedToPourOn}
          style={{ touchAction: 'none', cursor: 'crosshair', width: size, height: size, userSelect: 'none' }}
          onPointerDown={(event) => {
            unlockTones();
            event.currentTarget.setPointerCapture(event.pointerId);
            live.current.at = spotOf(event);
            live.current.firstY = event.clientY;
          }}
          // The page behind takes no focus.
          onMouseDown={(event) => event.preventDefault()}
          onPointerMove={moved}
          onPointerUp={lifted}
          onPointerCancel={lifted}
        >
          <Canvas width={size} height={size} label={WORDS.bedFromAbove} ref={bed} />
        </div>
        <TiltBar width={BAR_W} height={size} ref={bar} onTilt={setTilt} isTouched={tiltBy === 'thumb'} />
      </Row>
      <Row style={{ justifyContent: 'space-between', flexWrap: 'wrap' }}>
        <Choice
          name={WORDS.spoutHeight}
          value={pourHeight}
          onChange={choose}
          options={[
            { value: 'low', label: WORDS.low, hint: HEIGHT_WORDS.low.replace(/^low, /, '') },
            { value: 'high', label: WORDS.high, hint: HEIGHT_WORDS.high.replace(/^high, /, '') },
          ]}
        />
        <Button label={WORDS.stopThisTry} onPress={onStop} />
      </Row>
    </View>
  );
}

/** Arrow keys tilt; H changes the height. */
function useKeys(
  live: React.RefObject<Live>,
  setTilt: (tilt: number) => void,
  choose: (height: PourHeight) => void,
): void {
  const latest = useRef({ setTilt, choose });
  useEffect(() => {
    latest.current = { setTilt, choose };
  });
  useEffect(() => {
    const down = (event: KeyboardEvent) => {
      // A choice that has the focus has its own arrow keys.
      if (event.defaultPrevented) return;
      const by = event.key === 'ArrowDown' ? KEY : event.key === 'ArrowUp' ? -KEY : 0;
      if (by !== 0) {
        event.preventDefault();
        latest.current.setTilt(live.current.tilt + by);
      }
      if (event.key === 'h') latest.current.choose(live.current.height === 'low' ? 'high' : 'low');
    };
    window.addEventListener('keydown', down);
    return () => window.removeEventListener('keydown', down);
  }, [live]);
}

/** The wheel, as the hand's second axis where there is a mouse. React listens to it passively, so that the page would scroll. */
function useWheel(element: React.RefObject<HTMLElement | null>, turn: (by: number) => void): void {
  const latest = useRef(turn);
  useEffect(() => {
    latest.current = turn;
  });
  useEffect(() => {
    const at = element.current;
    const turned = (event: WheelEvent) => {
      event.preventDefault();
      latest.current(event.deltaY * WHEEL);
    };
    at?.addEventListener('wheel', turned, { passive: false });
    return () => at?.removeEventListener('wheel', turned);
  }, [element]);
}

/** A tick on every beat, from the first water on. */
function tick(now: Live, { beatS, pours }: Drill): void {
  if (beatS === undefined || !now.run.hasBegun) return;
  const beat = Math.floor(now.run.timeS / beatS);
  if (beat === now.beat) return;
  now.beat = beat;
  const starts = pours.some(({ startS }) => Math.abs(startS - beat * beatS) < beatS / 2);
  sound(starts ? 'now' : 'twenty');
}

function shownOf(
  { run, at, height }: Live,
  drill: Drill,
  hand: Hand,
  ghost: readonly Sample[],
  showsPath: boolean,
): BedShown {
  const pour = drill.pours[pourAt(drill, run.timeS)]!;
  const inS = run.timeS - pour.startS;
  const part = pour.parts.find(({ toS }) => inS < toS) ?? pour.parts.at(-1);
  const runs = inS >= 0 && run.timeS < pour.endS;
  return {
    bed: run.bed,
    keepsG: drill.nature.keepsG,
    path: showsPath && part ? outlineOf(part, hand) : null,
    should: showsPath && runs && run.hasBegun ? spoutOf(pour.parts, inS, hand) : null,
    ghost: ghost.find(({ s }) => s >= run.timeS)?.at ?? null,
    spot: at ? { at, flowGPerS: run.kettle.flowGPerS, height } : null,
  };
}
