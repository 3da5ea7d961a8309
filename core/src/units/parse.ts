/**
 * For reading what a person types. A wrong entry is a value, not an exception: the field shows the reason.
 */
import { G_PER_OZ, ML_PER_FL_OZ, celsiusToFahrenheit, fahrenheitToCelsius, type Units } from './quantity';

export type Read = { ok: true; value: number } | { ok: false; reason: string };

type Limits = { min: number; max: number };

/**
 * Reads a number as typed, with a point for decimals. A comma is refused with the reason rather than guessed at,
 * since "1,250" means two things in two places.
 */
export function readNumber(text: string, name: string): Read {
  const trimmed = text.trim();
  if (trimmed === '') return { ok: false, reason: `${name}: type a number.` };
  if (/^[+-]?\d+,\d+$/.test(trimmed)) {
    return { ok: false, reason: `${name}: use a point for decimals, like ${trimmed.replace(',', '.')}.` };
  }
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(trimmed)) {
    return { ok: false, reason: `${name}: “${trimmed.slice(0, 20)}” is not a number.` };
  }
  return { ok: true, value: Number(trimmed) };
}

/** Reads a mass typed in the bar's unit and gives grams. `limits` in grams. */
export const readMass = (text: string, name: string, units: Units, limits: Limits): Read =>
  readScaled(text, name, units.mass === 'oz' ? G_PER_OZ : 1, units.mass, limits);

/** Reads a volume typed in the bar's unit and gives millilitres. `limits` in millilitres. */
export const readVolume = (text: string, name: string, units: Units, limits: Limits): Read =>
  readScaled(text, name, units.volume === 'fl oz' ? ML_PER_FL_OZ : 1, units.volume, limits);

/** Reads a temperature typed in the bar's unit and gives degrees Celsius. `limits` in degrees Celsius. */
export function readTemperature(text: string, name: string, units: Units, limits: Limits): Read {
  const read = readNumber(text, name);
  if (!read.ok) return read;
  const fahrenheit = units.temperature === 'F';
  const celsius = fahrenheit ? fahrenheitToCelsius(read.value) : read.value;
  return within(
    celsius,
    name,
    limits,
    `°${units.temperature}`,
    fahrenheit ? celsiusToFahrenheit : (each) => each,
  );
}

function readScaled(text: string, name: string, unitSize: number, unit: string, limits: Limits): Read {
  const read = readNumber(text, name);
  return read.ok ? within(read.value * unitSize, name, limits, unit, (each) => each / unitSize) : read;
}

function within(
  value: number,
  name: string,
  { min, max }: Limits,
  unit: string,
  asTyped: (stored: number) => number,
): Read {
  if (value >= min && value <= max) return { ok: true, value };
  return {
    ok: false,
    reason: `${name}: from ${trimZeros(asTyped(min))} to ${trimZeros(asTyped(max))} ${unit}.`,
  };
}

const trimZeros = (value: number): string => String(Number(value.toFixed(1)));
