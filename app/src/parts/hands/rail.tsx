/**
 * The rail: the next minutes by station. Attended steps are solid, passive ones thin; what belongs to one order carries
 * its badge, and is underlined with the stroke of its ring. It is drawn when the plan or a brew changes; in between it
 * only slides. Closer and wider by pinch, by wheel with Ctrl, or by the keys + and -; an order is dragged sooner or later
 * by its badge.
 */
import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import { badgeOf } from '@even-kettle/core/brew';
import { useBar, useHere, useNow } from '../../client/bar-context';
import { useShortcuts } from '../../device/shortcuts';
import { Badge } from '../../ui/badge';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { Shifts } from '../orders/quote-line';
import { useUrging } from '../orders/use-urging';
import { lanesOf, type Lane, type Span, type Stretch } from './lanes';
import { WORDS } from './words';

const LANE_H = 28;
const NAME_W = 66;
const BADGE = 17;
/** How much of what has just been is still shown, seconds. */
const PAST_S = 30;
const CLOSEST_MIN = 4;
const WIDEST_MIN = 45;
/** Lanes are worked out anew so often though nothing was tapped, real milliseconds: what is late slides along. */
const LANES_MS = 10_000;
/** So many seconds of sliding are drawn beyond the edge. */
const SPARE_S = 60;

const DASHES: Record<string, string | undefined> = { dashed: '5 3', dotted: '1.5 2.5', double: undefined };

export const Rail = memo(function Rail({ minutes: usual }: { minutes: number }) {
  const { state, bar, book, plan } = useBar();
  const { clock } = useHere();
  const theme = useTheme();
  const [width, setWidth] = useState(0);
  const [minutes, setMinutes] = useState(usual);
  const workedOutMs = useNow(LANES_MS, 700);
  const lanes = useMemo(
    () => (bar ? lanesOf(state, bar, book, plan, clock.nowMs()) : []),
    // Also as time goes by.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [state, bar, book, plan, clock, workedOutMs],
  );
  // Drawn from a whole minute on, so that it can slide for one, and a little, before it is drawn anew.
  const zeroMs = Math.floor(Math.max(workedOutMs, clock.nowMs()) / 1000 / SPARE_S) * SPARE_S * 1000;
  const urge = useUrging();
  const zoom = (by: number) =>
    setMinutes((now) => Math.min(WIDEST_MIN, Math.max(CLOSEST_MIN, Math.round(now * by))));
  useShortcuts({ '+': () => zoom(1 / 1.4), '-': () => zoom(1.4) });
  const chartW = Math.max(0, width - NAME_W);
  const pxPerS = chartW / (minutes * 60 + PAST_S);
  const frame = useRef<View>(null);
  usePinch(frame, zoom);

  const orders = Object.values(state.orders);
  /** An order let go so many seconds later, or sooner: past which other one that is. */
  const dropped = (orderId: string, byS: number) => {
    const order = state.orders[orderId];
    const finishS = plan?.finish[orderId];
    if (!order || finishS === undefined) return;
    const others = orders.filter(({ id }) => id !== orderId && plan?.finish[id] !== undefined);
    const passed = others
      .filter(({ id }) => {
        const at = plan!.finish[id]!;
        return byS < 0 ? at >= finishS + byS && at <= finishS : at <= finishS + byS && at >= finishS;
      })
      .sort((a, b) => (plan!.finish[a.id]! - plan!.finish[b.id]!) * (byS < 0 ? 1 : -1))[0];
    if (passed) urge.past(order, passed, byS < 0 ? 'before' : 'after');
  };

  return (
    <Card style={{ paddingBottom: 8 }}>
      <Subheading>{WORDS.theNextMinutes(minutes)}</Subheading>
      <Row style={{ position: 'absolute', top: 2, right: 2, gap: 0, zIndex: 1 }}>
        <Button kind="bare" icon="minus" label="" says={WORDS.showMoreMinutes} onPress={() => zoom(1.4)} />
        <Button
          kind="bare"
          icon="plus"
          label=""
          says={WORDS.showFewerMinutes}
          onPress={() => zoom(1 / 1.4)}
        />
      </Row>
      {urge.urged ? (
        <Row style={{ flexWrap: 'wrap' }}>
          <Text bold>{urge.urged.words}</Text>
          <Shifts shifts={urge.urged.shifts} otherwise={WORDS.othersStay} />
        </Row>
      ) : null}
      <View
        ref={frame}
        role="group"
        aria-label={WORDS.timelineOfStations(lanes.length)}
        onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
      >
        {lanes.map((lane, row) => (
          <View
            key={lane.id}
            style={{
              flexDirection: 'row',
              height: LANE_H,
              alignItems: 'center',
              borderTopWidth: row === 0 ? 0 : 1,
              borderColor: theme.rim,
            }}
          >
            <Text size="small" numberOfLines={1} style={{ width: NAME_W }}>
              {lane.name}
            </Text>
            <View style={{ width: chartW, height: LANE_H, overflow: 'hidden' }}>
              <Sliding zeroMs={zeroMs} pxPerS={pxPerS}>
                <LaneDrawing
                  lane={lane}
                  zeroMs={zeroMs}
                  pxPerS={pxPerS}
                  seconds={minutes * 60}
                  onDrop={dropped}
                />
              </Sliding>
            </View>
          </View>
        ))}
        <View
          aria-hidden
          style={{
            position: 'absolute',
            left: NAME_W + PAST_S * pxPerS,
            top: 0,
            height: lanes.length * LANE_H,
            borderLeftWidth: 1.5,
            borderStyle: 'dashed',
            borderColor: theme.ink2,
          }}
        />
        <Minutes minutes={minutes} pxPerS={pxPerS} />
      </View>
    </Card>
  );
});

function Minutes({ minutes, pxPerS }: { minutes: number; pxPerS: number }) {
  const every = minutes <= 6 ? 1 : minutes <= 20 ? 2 : 5;
  return (
    <View style={{ height: 18 }}>
      {Array.from({ length: Math.floor(minutes / every) + 1 }, (_, index) => index * every).map((minute) => (
        <Text
          key={minute}
          size="small"
          quiet
          style={{
            position: 'absolute',
            left:
              NAME_W +
              (minute * 60 + PAST_S) * pxPerS -
              (minute === 0 ? 12 : minute >= minutes - every / 2 ? 14 : 6),
          }}
        >
          {minute === 0 ? 'now' : minute}
        </Text>
      ))}
    </View>
  );
}

type SlidingProps = { zeroMs: number; pxPerS: number; children: React.ReactNode };

/**
 * What slides to the left as time goes by. Only its place is changed, straight on the element: nothing is drawn anew.
 */
function Sliding({ zeroMs, pxPerS, children }: SlidingProps) {
  const { clock } = useHere();
  const ref = useRef<View>(null);
  // Before it is painted: a drawing from another minute on stands at another place.
  useLayoutEffect(() => {
    const element = ref.current as unknown as HTMLElement | null;
    if (!element?.style) return undefined;
    const slide = () => {
      element.style.transform = `translateX(${(-((clock.nowMs() - zeroMs) / 1000) * pxPerS).toFixed(1)}px)`;
    };
    slide();
    const timer = setInterval(slide, 1000);
    return () => clearInterval(timer);
  }, [clock, zeroMs, pxPerS]);
  return (
    <View ref={ref} testID="slides" style={{ position: 'absolute', left: 0, top: 0 }}>
      {children}
    </View>
  );
}

type LaneDrawingProps = {
  lane: Lane;
  /** The moment that stands at the left, after a while of what has just been. */
  zeroMs: number;
  pxPerS: number;
  seconds: number;
  onDrop: (orderId: string, byS: number) => void;
};

function LaneDrawing({ lane, zeroMs, pxPerS, seconds, onDrop }: LaneDrawingProps) {
  const theme = useTheme();
  const { clock } = useHere();
  const endS = seconds + SPARE_S + LANES_MS / 1000;
  const xAt = (atMs: number) => ((atMs - zeroMs) / 1000 + PAST_S) * pxPerS;
  const shown = ({ fromMs, toMs }: Span) => toMs > zeroMs - PAST_S * 1000 && fromMs < zeroMs + endS * 1000;
  const width = (endS + PAST_S) * pxPerS;
  /** One path a kind: a lane has dozens of steps, and each would be an element of its own. */
  const bars = (attended: boolean) => {
    const [y, height] = attended ? [10, 12] : [14.5, 3];
    return lane.stretches
      .flatMap(({ spans }) => spans)
      .filter((span) => span.attended === attended && shown(span))
      .map(({ fromMs, toMs }) => {
        const x = xAt(fromMs);
        const length = Math.max(1.5, xAt(toMs) - x - 0.5);
        return `M${x.toFixed(1)} ${y}h${length.toFixed(1)}v${height}h-${length.toFixed(1)}z`;
      })
      .join('');
  };
  return (
    <View style={{ width, height: LANE_H }}>
      <Svg width={width} height={LANE_H} aria-hidden>
        <Path d={bars(true)} fill={theme.ink} />
        <Path d={bars(false)} fill={theme.cool} />
        {lane.stretches.map(({ key, badge, spans }) => {
          const { stroke } = badgeOf(badge);
          const [x1, x2] = [xAt(spans[0]!.fromMs), xAt(spans.at(-1)!.toMs) - 2];
          const dash = DASHES[stroke];
          return (stroke === 'double' ? [24.2, 26.6] : [25.4]).map((y) => (
            <Line
              key={`${key} ${y}`}
              x1={x1}
              x2={x2}
              y1={y}
              y2={y}
              stroke={theme.ink2}
              strokeWidth={stroke === 'double' ? 0.9 : 1.4}
              {...(dash ? { strokeDasharray: dash } : {})}
            />
          ));
        })}
      </Svg>
      {lane.stretches.map((stretch) => (
        <DragBadge
          key={stretch.key}
          stretch={stretch}
          x={Math.max(xAt(stretch.spans[0]!.fromMs), xAt(Math.max(zeroMs, clock.nowMs()) - PAST_S * 1000))}
          pxPerS={pxPerS}
          onDrop={onDrop}
        />
      ))}
    </View>
  );
}

/** An order's badge at the head of its brew, dragged sooner or later. */
function DragBadge({
  stretch,
  x,
  pxPerS,
  onDrop,
}: {
  stretch: Stretch;
  x: number;
  pxPerS: number;
  onDrop: (orderId: string, byS: number) => void;
}) {
  const [byPx, setByPx] = useState(0);
  const fromX = useRef<number | null>(null);
  return (
    <div
      role="img"
      aria-label={WORDS.dragOrder(badgeOf(stretch.badge).letter)}
      onPointerDown={(event) => {
        fromX.current = event.clientX;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (fromX.current !== null) setByPx(event.clientX - fromX.current);
      }}
      onPointerUp={() => {
        if (fromX.current !== null && Math.abs(byPx) > 8) onDrop(stretch.orderId, byPx / pxPerS);
        fromX.current = null;
        setByPx(0);
      }}
      onPointerCancel={() => {
        fromX.current = null;
        setByPx(0);
      }}
      style={{
        position: 'absolute',
        // The mark is small; what a finger takes hold of is the whole lane's height.
        top: 0,
        left: x - 8,
        width: BADGE + 16,
        height: LANE_H,
        cursor: 'grab',
        touchAction: 'none',
        transform: `translateX(${byPx}px)`,
        zIndex: byPx === 0 ? 0 : 1,
      }}
    >
      <View style={{ marginLeft: 8, marginTop: -1 }} aria-hidden>
        <Badge badge={stretch.badge} size={BADGE} />
      </View>
    </div>
  );
}

/** Two fingers, or the wheel with Ctrl held: closer or wider. */
function usePinch(frame: React.RefObject<View | null>, zoom: (by: number) => void): void {
  const latest = useRef(zoom);
  useEffect(() => {
    latest.current = zoom;
  });
  useEffect(() => {
    const element = frame.current as unknown as HTMLElement | null;
    if (!element?.addEventListener) return undefined;
    let apart: number | null = null;
    const spread = ({ touches: [a, b] }: TouchEvent) =>
      a && b ? Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY) : null;
    const onTouch = (event: TouchEvent) => {
      const now = spread(event);
      if (now === null) return void (apart = null);
      event.preventDefault();
      if (apart !== null && (now > apart * 1.25 || now < apart / 1.25)) latest.current(apart / now);
      else if (apart !== null) return;
      apart = now;
    };
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      latest.current(event.deltaY > 0 ? 1.2 : 1 / 1.2);
    };
    const ended = () => void (apart = null);
    element.addEventListener('touchmove', onTouch, { passive: false });
    element.addEventListener('touchend', ended);
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      element.removeEventListener('touchmove', onTouch);
      element.removeEventListener('touchend', ended);
      element.removeEventListener('wheel', onWheel);
    };
  }, [frame]);
}
