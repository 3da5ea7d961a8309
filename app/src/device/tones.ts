/**
 * Short synthesised tones, one for each signal, told apart by pitch and by number: two rising for "get ready", one high
 * for "now", three falling for "late". Does nothing where the browser has no Web Audio.
 */
import type { Signal } from './signals';

type Note = { hz: number; atS: number; forS: number };

export const TONES: Record<Signal, readonly Note[]> = {
  ready: [
    { hz: 523, atS: 0, forS: 0.09 },
    { hz: 659, atS: 0.13, forS: 0.12 },
  ],
  now: [{ hz: 988, atS: 0, forS: 0.32 }],
  late: [
    { hz: 784, atS: 0, forS: 0.11 },
    { hz: 622, atS: 0.15, forS: 0.11 },
    { hz: 494, atS: 0.3, forS: 0.2 },
  ],
};

const LOUDNESS = 0.32;
let context: AudioContext | null = null;

/** Whether tones can be made here; `waiting` until the first touch, which browsers ask for. */
export function tonesState(): 'absent' | 'waiting' | 'ready' {
  if (typeof globalThis.AudioContext === 'undefined') return 'absent';
  return context?.state === 'running' ? 'ready' : 'waiting';
}

/** Browsers let a page sound only after it has been touched. */
export function unlockTones(): void {
  if (typeof globalThis.AudioContext === 'undefined') return;
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume().catch(() => undefined);
}

export function sound(signal: Signal): void {
  if (!context || context.state !== 'running') return;
  for (const { hz, atS, forS } of TONES[signal]) {
    const fromS = context.currentTime + atS;
    const tone = context.createOscillator();
    const loudness = context.createGain();
    tone.type = 'triangle';
    tone.frequency.value = hz;
    // A soft edge at both ends, so that nothing clicks.
    loudness.gain.setValueAtTime(0, fromS);
    loudness.gain.linearRampToValueAtTime(LOUDNESS, fromS + 0.012);
    loudness.gain.setValueAtTime(LOUDNESS, fromS + forS - 0.03);
    loudness.gain.linearRampToValueAtTime(0, fromS + forS);
    tone.connect(loudness).connect(context.destination);
    tone.start(fromS);
    tone.stop(fromS + forS);
  }
}
