/**
 * Listens to the agenda and calls: tone, voice and vibration as this device is set. Runs on every place, so that a
 * barista who is taking an order hears the pour that is due.
 */
import { useEffect, useRef } from 'react';
import { forHands } from '@even-kettle/core/plan';
import { agendaNow } from '../client/agenda-now';
import { onTick, useBar, useHere, useUnits } from '../client/bar-context';
import { useHabit } from './use-habit';
import { panOf } from './pan';
import { screenAwake, shake, speak, type Awake } from './senses';
import { useDevice } from './settings';
import { useCount } from './use-count';
import { toHear, type Signal } from './signals';
import { spokenCue } from './spoken';
import { sound, unlockTones } from './tones';

/** How often it is looked whether something is to be heard, milliseconds. */
const LISTEN_MS = 250;

export function useSignals(): void {
  useCount();
  const { clock } = useHere();
  const view = useBar();
  const { plan, state } = view;
  const units = useUnits();
  const settings = useDevice();
  const { lateS } = useHabit('');
  const heard = useRef(new Map<string, Signal>());
  const latest = useRef<(nowMs: number) => void>(() => undefined);
  useEffect(() => {
    latest.current = (nowMs) => {
      const items = forHands(agendaNow(view, nowMs), plan, settings.hands);
      const call = toHear(items, nowMs, settings.early ? lateS * 1000 : 0, heard.current);
      if (!call) return;
      heard.current.set(call.key, call.signal);
      const item = items.find(({ key }) => key === call.key)!;
      if (settings[call.signal]) sound(call.signal, panOf(item.station.id, view.bar?.stations ?? []));
      if (settings.vibrate) shake(call.signal);
      if (settings.voice) speak(spokenCue(item, call.signal, units));
    };
  });
  // Listened for between the turns of the clocks, and nothing is drawn for it.
  useEffect(() => onTick(clock, LISTEN_MS, LISTEN_MS / 2, (nowMs) => latest.current(nowMs)), [clock]);

  useEffect(() => {
    const events = ['pointerdown', 'keydown'] as const;
    for (const event of events) window.addEventListener(event, unlockTones);
    return () => {
      for (const event of events) window.removeEventListener(event, unlockTones);
    };
  }, []);

  const awake = useRef<Awake | null>(null);
  const running = Object.values(state.brews).some(({ status }) => status === 'running');
  useEffect(() => {
    awake.current ??= screenAwake();
    awake.current.keep(running && settings.awake);
  }, [running, settings.awake]);
  useEffect(
    () => () => {
      awake.current?.close();
      awake.current = null;
    },
    [],
  );
}
