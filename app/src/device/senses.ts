/**
 * Voice, vibration and a screen that stays on: each a small wrapper that does nothing where the browser cannot.
 */
import type { Signal } from './signals';

const SHAKES: Record<Signal, number[]> = { ready: [60], now: [160], late: [90, 70, 90, 70, 180] };

export const canVibrate = (): boolean => typeof globalThis.navigator?.vibrate === 'function';
export function shake(signal: Signal): void {
  // Before the first touch browsers refuse, and complain.
  if (canVibrate() && navigator.userActivation?.hasBeenActive !== false) navigator.vibrate(SHAKES[signal]);
}

export const canSpeak = (): boolean => typeof globalThis.speechSynthesis !== 'undefined';
/** Says a line; what was still being said gives way, so that speech never lags behind the bar. */
export function speak(line: string): void {
  if (!canSpeak()) return;
  speechSynthesis.cancel();
  const spoken = new SpeechSynthesisUtterance(line);
  spoken.rate = 1.05;
  speechSynthesis.speak(spoken);
}

export const canStayAwake = (): boolean => typeof navigator !== 'undefined' && 'wakeLock' in navigator;

export type Awake = { keep: (wanted: boolean) => void; held: () => boolean; close: () => void };

/** Keeps the screen on while it is wanted. Browsers let go when the page is hidden, so it is taken again on return. */
export function screenAwake(): Awake {
  let wanted = false;
  let lock: WakeLockSentinel | null = null;
  let asking = false;

  const ask = async () => {
    if (!wanted || lock || asking || !canStayAwake() || document.visibilityState !== 'visible') return;
    asking = true;
    try {
      const got = await navigator.wakeLock.request('screen');
      got.addEventListener('release', () => {
        if (lock === got) lock = null;
      });
      if (wanted) lock = got;
      else void got.release();
    } catch {
      // Low battery, or a browser that will not: the bar goes on with a screen that may sleep.
    } finally {
      asking = false;
    }
  };
  const onVisible = () => void ask();
  globalThis.document?.addEventListener('visibilitychange', onVisible);

  return {
    keep: (next) => {
      wanted = next;
      if (next) void ask();
      else {
        void lock?.release().catch(() => undefined);
        lock = null;
      }
    },
    held: () => lock !== null,
    close: () => {
      wanted = false;
      globalThis.document?.removeEventListener('visibilitychange', onVisible);
      void lock?.release().catch(() => undefined);
    },
  };
}

export type Missing = { what: string; why: string };

/** What this browser, or the way the page was opened, does not give; in words, with what it means. */
export function missingHere(): Missing[] {
  const missing: Missing[] = [];
  const insecure = globalThis.isSecureContext === false;
  const why = insecure ? 'the page was opened over plain HTTP' : 'this browser has none';
  if (!canStayAwake()) missing.push({ what: 'The screen may go dark while a brew runs', why });
  if (!('serviceWorker' in (globalThis.navigator ?? {})))
    missing.push({ what: 'The app cannot be opened while the server is away', why });
  if (!canVibrate()) missing.push({ what: 'No vibration', why: 'this device or browser has none' });
  if (!canSpeak()) missing.push({ what: 'No spoken cues', why: 'this browser has no voice' });
  if (typeof globalThis.AudioContext === 'undefined')
    missing.push({ what: 'No tones', why: 'this browser has no Web Audio' });
  return missing;
}
