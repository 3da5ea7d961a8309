/**
 * Short synthesised tones, told apart by pitch and by number: two rising for "get ready", one high for "now", three falling
 * for "late"; for counting a pour one tick, two ticks, and a long falling pair. Each comes from its station's side.
 * Does nothing where the browser has no Web Audio.
 */
import type { Count } from './counting';
import type { Signal } from './signals';

type Note = { hz: number; atS: number; forS: number };

export type Tone = Signal | Count;

export const TONES: Record<Tone, readonly Note[]> = {
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
  twenty: [{ hz: 1320, atS: 0, forS: 0.06 }],
  ten: [
    { hz: 1320, atS: 0, forS: 0.06 },
    { hz: 1320, atS: 0.11, forS: 0.06 },
  ],
  stop: [
    { hz: 880, atS: 0, forS: 0.12 },
    { hz: 440, atS: 0.12, forS: 0.3 },
  ],
};

/** As loud as a loudspeaker gives without breaking up: the limiter keeps what overlaps below that. */
const LOUDNESS = 0.9;
const LIMITER = { threshold: -6, knee: 4, ratio: 12, attack: 0.002, release: 0.08 };
const CEILING = 0.9;
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

/** @param pan from which side, -1 left to 1 right */
export function sound(tone: Tone, pan = 0): void {
  if (!context || context.state !== 'running') return;
  const out = outlet(context, pan);
  for (const { hz, atS, forS } of TONES[tone]) {
    const fromS = context.currentTime + atS;
    const oscillator = context.createOscillator();
    const loudness = context.createGain();
    oscillator.type = 'triangle';
    oscillator.frequency.value = hz;
    // A soft edge at both ends, so that nothing clicks.
    loudness.gain.setValueAtTime(0, fromS);
    loudness.gain.linearRampToValueAtTime(LOUDNESS, fromS + 0.012);
    loudness.gain.setValueAtTime(LOUDNESS, fromS + forS - 0.03);
    loudness.gain.linearRampToValueAtTime(0, fromS + forS);
    oscillator.connect(loudness).connect(out);
    oscillator.start(fromS);
    oscillator.stop(fromS + forS);
  }
}

/** To the side, through the limiter, to the loudspeaker. */
function outlet(to: AudioContext, pan: number): AudioNode {
  const side = to.createStereoPanner();
  side.pan.value = pan;
  side.connect(limiterOf(to));
  return side;
}

/** One for all that sounds at once: two stations that call together would break up behind a limiter each. */
const limiters = new WeakMap<AudioContext, AudioNode>();

function limiterOf(to: AudioContext): AudioNode {
  const known = limiters.get(to);
  if (known) return known;
  const limiter = to.createDynamicsCompressor();
  for (const [name, value] of Object.entries(LIMITER) as [keyof typeof LIMITER, number][])
    limiter[name].value = value;
  // It makes up for what it takes, and its attack lets a first edge through: both stay below full scale.
  const ceiling = to.createGain();
  ceiling.gain.value = CEILING;
  limiter.connect(ceiling);
  ceiling.connect(to.destination);
  limiters.set(to, limiter);
  return limiter;
}
