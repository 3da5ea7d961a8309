/**
 * How this device is used: whose hands it is for, what it may sound, say and shake. Kept on the device itself.
 */
import { useSyncExternalStore } from 'react';
import { isPair } from '@even-kettle/core/brew';
import type { Hand } from '@even-kettle/core/pour';
import type { Hands } from '@even-kettle/core/plan';

export type DeviceSettings = {
  /** Whose steps the hands card shows. */
  hands: Hands;
  /** The person of the bench whose hands they are; null for nobody in particular. */
  person: string | null;
  /** Tones, each by itself. */
  ready: boolean;
  now: boolean;
  late: boolean;
  voice: boolean;
  vibrate: boolean;
  /** The screen stays on while a brew runs. */
  awake: boolean;
  /** Stop a little before the target, by what this person's hands are known to overrun. */
  lead: boolean;
  /** Cues come as much earlier as this person is known to come late. */
  early: boolean;
  /** Tones, or a voice, count into a pour's target. */
  countTones: boolean;
  countVoice: boolean;
  /** The hand that pours: paths are drawn for it. */
  pouringHand: Hand;
  /** What a level spoon of coffee weighs here, grams; 0 until it has been weighed. */
  spoonG: number;
  /** Says why, how, and the commonest mistake of every step. */
  learning: boolean;
  /** After an order was taken, the code by which its guest follows it is shown. */
  guestCode: boolean;
  /** The day (bar time) for which cautions have been read, as YYYY-MM-DD, by caution. */
  cautionsRead: Record<string, string>;
};

export const USUAL_SETTINGS: DeviceSettings = {
  hands: 'all',
  person: null,
  ready: true,
  now: true,
  late: true,
  voice: false,
  vibrate: true,
  awake: true,
  lead: true,
  early: true,
  countTones: false,
  countVoice: false,
  pouringHand: 'right',
  spoonG: 0,
  learning: false,
  guestCode: false,
  cautionsRead: {},
};

/** The number is another where what is stored means something else: pairs of hands were numbered from 1 before. */
const STORED_AS = 'even-kettle.device@2';
const listeners = new Set<() => void>();
let current: DeviceSettings | null = null;

/** What is stored, as far as it is of the right kind; the rest as usual. */
export function readSettings(text: string | null | undefined): DeviceSettings {
  let stored: Record<string, unknown>;
  try {
    stored = JSON.parse(text ?? '{}') as Record<string, unknown>;
  } catch {
    return USUAL_SETTINGS;
  }
  const known = Object.entries(stored ?? {}).filter(([key, value]) => {
    if (key === 'hands') return value === 'all' || isPair(value);
    if (key === 'pouringHand') return value === 'right' || value === 'left';
    if (key === 'person') return value === null || typeof value === 'string';
    return key in USUAL_SETTINGS && typeof value === typeof USUAL_SETTINGS[key as keyof DeviceSettings];
  });
  return { ...USUAL_SETTINGS, ...(Object.fromEntries(known) as Partial<DeviceSettings>) };
}

/** What this device keeps; undefined where the browser keeps nothing. */
export const storage = () => {
  try {
    return globalThis.localStorage;
  } catch {
    // Switched off in this browser: settings last as long as the page.
    return undefined;
  }
};

export const deviceSettings = (): DeviceSettings => (current ??= readSettings(storage()?.getItem(STORED_AS)));

export function setDevice(part: Partial<DeviceSettings>): void {
  current = { ...deviceSettings(), ...part };
  try {
    storage()?.setItem(STORED_AS, JSON.stringify(current));
  } catch {
    // As above.
  }
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useDevice = (): DeviceSettings =>
  useSyncExternalStore(subscribe, deviceSettings, deviceSettings);
