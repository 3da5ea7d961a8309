/**
 * The rail: the next minutes by station. Attended steps are solid, passive ones thin; cups of one order carry its badge.
 */
import { memo, useState } from 'react';
import { View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import { timelineAt } from '@even-kettle/core/brew';
import { cardFor, stepKey, type AgendaItem } from '@even-kettle/core/plan';
import { useAgenda, useBar, useNow } from '../../bar/bar-context';
import { Badge } from '../../ui/badge';
import { useLook } from '../../ui/look';
import { Card } from '../../ui/parts';
import { Subheading, Text } from '../../ui/text';

const LANE_H = 28;
const NAME_W = 66;
const BADGE = 17;
/** How much of what has just been is still shown, seconds. */
const PAST_S = 30;

type Span = { key: string; fromS: number; toS: number; attended: boolean };
type Lane = { name: string; spans: Span[]; badges: { key: string; atS: number; badge: number }[] };

/** A minute is a few pixels: drawn anew every two seconds, between the turns of the clocks. */
export const Rail = memo(function Rail({ minutes }: { minutes: number }) {
  const nowMs = useNow(2000, 500);
  const items = useAgenda(nowMs);
  const look = useLook();
  const [width, setWidth] = useState(0);
  const lanes = useLanes(nowMs, items);
  const chartW = Math.max(0, width - NAME_W);
  const endS = minutes * 60;
  const xAt = (atS: number) => ((atS + PAST_S) / (endS + PAST_S)) * chartW;
  /** One path a lane and kind: a lane has dozens of steps, and each would be an element of its own. */
  const barsOf = ({ spans }: Lane, attended: boolean) => {
    const [y, height] = attended ? [11, 13] : [16, 4];
    return spans
      .filter((span) => span.attended === attended && span.toS > -PAST_S && span.fromS < endS)
      .map(({ fromS, toS }) => {
        const x = xAt(Math.max(fromS, -PAST_S));
        const width = Math.max(1.5, xAt(Math.min(toS, endS)) - x - 0.5);
        return `M${x.toFixed(1)} ${y}h${width.toFixed(1)}v${height}h-${width.toFixed(1)}z`;
      })
      .join('');
  };
  return (
    <Card style={{ paddingBottom: 8 }}>
      <Subheading>The next {minutes} minutes</Subheading>
      <View
        role="img"
        aria-label={`Timeline of ${lanes.length} stations`}
        onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
      >
        {lanes.map((lane, row) => (
          <View
            key={lane.name}
            style={{
              flexDirection: 'row',
              height: LANE_H,
              alignItems: 'center',
              borderTopWidth: row === 0 ? 0 : 1,
              borderColor: look.rim,
            }}
          >
            <Text size="small" numberOfLines={1} style={{ width: NAME_W }}>
              {lane.name}
            </Text>
            <View style={{ width: chartW, height: LANE_H, overflow: 'hidden' }}>
              <Svg width={chartW} height={LANE_H}>
                <Path d={barsOf(lane, true)} fill={look.ink} />
                <Path d={barsOf(lane, false)} fill={look.cool} />
                <Line
                  x1={xAt(0)}
                  x2={xAt(0)}
                  y1={0}
                  y2={LANE_H}
                  stroke={look.ink2}
                  strokeWidth={1.5}
                  strokeDasharray="2 3"
                />
              </Svg>
              {lane.badges
                .filter(({ atS }) => xAt(atS) < chartW - BADGE)
                .map(({ key, atS, badge }) => (
                  <View key={key} style={{ position: 'absolute', top: -1, left: Math.max(0, xAt(atS)) }}>
                    <Badge badge={badge} size={BADGE} />
                  </View>
                ))}
            </View>
          </View>
        ))}
        <View style={{ flexDirection: 'row', paddingLeft: NAME_W, height: 18 }}>
          {Array.from({ length: Math.floor(minutes / 2) + 1 }, (_, index) => index * 2).map((minute) => (
            <Text
              key={minute}
              size="small"
              quiet
              style={{
                position: 'absolute',
                left: NAME_W + xAt(minute * 60) - (minute === 0 ? 12 : minute >= minutes ? 14 : 6),
              }}
            >
              {minute === 0 ? 'now' : minute}
            </Text>
          ))}
        </View>
      </View>
    </Card>
  );
});

/** One lane a station, with what its brew has ahead; and what is planned to be started there. */
function useLanes(nowMs: number, items: AgendaItem[]): Lane[] {
  const { state, bar, book, plan } = useBar();
  if (!bar) return [];
  const lanes = new Map<string, Lane>(
    bar.stations.map(({ id, name }) => [id, { name, spans: [], badges: [] }]),
  );
  const fromNowS = (atMs: number) => (atMs - nowMs) / 1000;

  for (const brew of Object.values(state.brews)) {
    const lane = lanes.get(brew.stationId);
    const ahead = timelineAt(brew, nowMs).filter(
      ({ endMs, status }) => status !== 'skipped' && endMs > nowMs - PAST_S * 1000,
    );
    const order = state.orders[brew.orderId];
    if (!lane || !order || !ahead.some(({ status }) => status !== 'done')) continue;
    for (const { step, status, startMs, endMs } of ahead) {
      const key = stepKey(brew.id, step.id);
      const planned = status === 'waiting' ? plan?.starts[key] : undefined;
      const fromMs = planned === undefined ? startMs : Math.max(planned * 1000, startMs);
      lane.spans.push({
        key,
        fromS: fromNowS(fromMs),
        toS: fromNowS(fromMs + (endMs - startMs)),
        attended: step.attended,
      });
    }
    lane.badges.push({
      key: brew.id,
      atS: Math.max(-PAST_S, lane.spans.at(-ahead.length)!.fromS),
      badge: order.badge,
    });
  }
  const placed = new Set<string>();
  for (const item of items) {
    if (item.brew || placed.has(item.brewId)) continue;
    placed.add(item.brewId);
    const found = cardFor(bar, item.cup, book);
    const lane = laneWithRoom(
      lanes,
      found.ok ? found.stations.map(({ id }) => id) : [],
      fromNowS(item.dueMs),
    );
    if (!lane || !found.ok) continue;
    lane.badges.push({ key: item.brewId, atS: fromNowS(item.dueMs), badge: item.order.badge });
    for (const step of found.card.steps) {
      const startS = plan?.starts[stepKey(item.brewId, step.id)];
      if (startS === undefined) continue;
      const fromS = fromNowS(startS * 1000);
      lane.spans.push({
        key: stepKey(item.brewId, step.id),
        fromS,
        toS: fromS + step.durationS,
        attended: step.attended,
      });
    }
  }
  return [...lanes.values()];
}

/** The plan counts brewers of a kind; the drawing puts each brew in the first lane whose own are over by then. */
function laneWithRoom(lanes: Map<string, Lane>, stationIds: string[], fromS: number): Lane | undefined {
  const candidates = stationIds.map((id) => lanes.get(id)!);
  return candidates.find((lane) => lane.spans.every((span) => span.toS <= fromS + 1)) ?? candidates[0];
}
