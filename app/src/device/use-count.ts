/**
 * Counts the pour under way into its target, by tones or by a voice as this device is set.
 */
import { useEffect, useMemo, useRef } from 'react';
import { forHands } from '@even-kettle/core/plan';
import { agendaNow } from '../client/agenda-now';
import { onTick, useBar, useHere } from '../client/bar-context';
import { COUNTS, countAt, pouringOf, type Count } from './counting';
import { panOf } from './pan';
import { speak } from './senses';
import { useDevice } from './settings';
import { sound } from './tones';
import { useHabit } from './use-habit';

/** A hand stops within a gram or two: it is looked this often, milliseconds. */
const LOOK_MS = 80;

export function useCount(): void {
  const { clock, devices } = useHere();
  const view = useBar();
  const settings = useDevice();
  const counts = settings.countTones || settings.countVoice;
  // A pour begins by an event, so it is looked for once a view, however often it is counted.
  const item = useMemo(() => {
    if (!counts) return undefined;
    const items = forHands(agendaNow(view, clock.nowMs()), view.plan, settings.hands);
    return items.find(({ step, begunMs }) => step.kind === 'pour' && begunMs !== null);
  }, [counts, view, clock, settings.hands]);
  const { leadG } = useHabit(item?.station.id ?? '');
  const counted = useRef<{ key: string; count: Count } | null>(null);
  const latest = useRef<(nowMs: number) => void>(() => undefined);
  useEffect(() => {
    latest.current = (nowMs) => {
      if (!item) return;
      const scale = devices.scale(item.station.id);
      const readingG = scale?.connected ? scale.massG : null;
      const pouring = pouringOf(item, nowMs, readingG, settings.lead ? leadG : 0);
      const count = pouring && countAt(pouring);
      if (!count) return;
      const before = counted.current?.key === item.key ? COUNTS.indexOf(counted.current.count) : -1;
      if (COUNTS.indexOf(count) <= before) return;
      counted.current = { key: item.key, count };
      if (settings.countTones) sound(count, panOf(item.station.id, view.bar?.stations ?? []));
      if (settings.countVoice) speak(count);
    };
  });
  const pours = item !== undefined;
  useEffect(
    () => (pours ? onTick(clock, LOOK_MS, LOOK_MS / 2, (nowMs) => latest.current(nowMs)) : undefined),
    [clock, pours],
  );
}
