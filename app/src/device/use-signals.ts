/**
 * Listens to the agenda and calls: tone, voice and vibration as this device is set. Runs on every place, so that a
 * barista who is taking an order hears the pour that is due.
 */
import { useEffect, useRef } from 'react';
import { forHands } from '@even-kettle/core/plan';
import { useAgenda, useBar, useNow, useUnits } from '../bar/bar-context';
import { useHabit } from '../bar/use-habit';
import { screenAwake, shake, speak, type Awake } from './senses';
import { useDevice } from './settings';
import { toHear, type Signal } from './signals';
import { spokenCue } from './spoken';
import { sound, unlockTones } from './tones';

export function useSignals(): void {
  const nowMs = useNow(250);
  const { plan, state } = useBar();
  const units = useUnits();
  const settings = useDevice();
  const items = forHands(useAgenda(nowMs), plan, settings.hands);
  const heard = useRef(new Map<string, Signal>());
  const { lateS } = useHabit(items[0]?.station.id ?? '');
  const earlyMs = settings.early ? lateS * 1000 : 0;

  useEffect(() => {
    const call = toHear(items, nowMs, earlyMs, heard.current);
    if (!call) return;
    heard.current.set(call.key, call.signal);
    const item = items.find(({ key }) => key === call.key)!;
    if (settings[call.signal]) sound(call.signal);
    if (settings.vibrate) shake(call.signal);
    if (settings.voice) speak(spokenCue(item, call.signal, units));
  }, [items, nowMs, earlyMs, settings, units]);

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
