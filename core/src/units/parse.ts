/**
 * Reads what a person types. A wrong entry is a value, not an exception: the field shows the reason.
 */
import { G_PER_OZ, ML_PER_FL_OZ, celsiusToFahrenheit, fahrenheitToCelsius, type Units } from './quantity';

export type Read = { ok: true; value: number } | { ok: false; reason: string };

type Limits = { min: number; max: number };

export type DecimalMark = '.' | ',';

/**
 * Reads a number as it is typed, with a point or a comma for decimals: 12.7 and 12,7 are the same. Where a mark is followed
 * by three figures and could part thousands as well, the reader's own decimal mark decides.
 */
export function readNumber(text: string, name: string, decimal: DecimalMark = '.'): Read {
  // Spaces and apostrophes part thousands in some places; the minus may be the typographic one.
  const typed = text
    .trim()
    .replace(/(\d)[\s\u00a0\u202f’'](?=\d{3})/g, '$1')
    .replace('\u2212', '-');
  if (typed === '') return { ok: false, reason: `${name}: type a number.` };
  const plain = withPoint(typed, decimal);
  if (plain === null || !/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) {
    return {
      ok: false,
      reason: `${name}: “${text.trim().slice(0, 20)}” is not a number. Type one like 12.7.`,
    };
  }
  return { ok: true, value: Number(plain) };
}

/** With a point for decimals and no mark between thousands; null if the marks make no number. */
function withPoint(typed: string, decimal: DecimalMark): string | null {
  const marks = typed.match(/[.,]/g) ?? [];
  if (marks.length === 0) return typed;
  const other = decimal === '.' ? ',' : '.';
  const last = marks.at(-1)!;
  const mixed = new Set(marks).size === 2;
  if (mixed) {
    const thousands = last === '.' ? ',' : '.';
    const [whole = '', ...rest] = typed.split(last);
    return rest.length === 1 && isGrouped(whole, thousands)
      ? `${whole.replaceAll(thousands, '')}.${rest[0]}`
      : null;
  }
  if (marks.length > 1) return isGrouped(typed, last) ? typed.replaceAll(last, '') : null;
  return last === other && isGrouped(typed, other) ? typed.replace(other, '') : typed.replace(last, '.');
}

const isGrouped = (typed: string, mark: string): boolean =>
  new RegExp(`^[+-]?[1-9]\\d{0,2}(\\${mark}\\d{3})+$`).test(typed);

/** Reads a mass typed in the bar's unit and gives grams. `limits` in grams. */
export const readMass = (
  text: string,
  name: string,
  units: Units,
  limits: Limits,
  decimal?: DecimalMark,
): Read =>
  readScaled(readNumber(text, name, decimal), name, units.mass === 'oz' ? G_PER_OZ : 1, units.mass, limits);

/** Reads a volume typed in the bar's unit and gives millilitres. `limits` in millilitres. */
export const readVolume = (
  text: string,
  name: string,
  units: Units,
  limits: Limits,
  decimal?: DecimalMark,
): Read =>
  readScaled(
    readNumber(text, name, decimal),
    name,
    units.volume === 'fl oz' ? ML_PER_FL_OZ : 1,
    units.volume,
    limits,
  );

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

function readScaled(read: Read, name: string, unitSize: number, unit: string, limits: Limits): Read {
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
