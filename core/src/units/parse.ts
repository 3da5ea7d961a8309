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

/** Reads a mass and gives grams: in the bar's unit, or in the one that is typed behind it. `limits` in grams. */
export const readMass = (
  text: string,
  name: string,
  units: Units,
  limits: Limits,
  decimal?: DecimalMark,
): Read => {
  const { figure, unit } = parted(text, { g: 'gr?|grams?', oz: 'oz|ounces?' });
  const own = units.mass === 'oz' ? G_PER_OZ : 1;
  const size = unit === null ? own : unit === 'oz' ? G_PER_OZ : 1;
  return readScaled(readNumber(figure, name, decimal), size, name, [units.mass, own], limits);
};

/** Reads a volume and gives millilitres: in the bar's unit, or in the one typed behind it. `limits` in millilitres. */
export const readVolume = (
  text: string,
  name: string,
  units: Units,
  limits: Limits,
  decimal?: DecimalMark,
): Read => {
  const { figure, unit } = parted(text, { ml: 'ml', 'fl oz': 'fl\\.? ?oz' });
  const own = units.volume === 'fl oz' ? ML_PER_FL_OZ : 1;
  const size = unit === null ? own : unit === 'fl oz' ? ML_PER_FL_OZ : 1;
  return readScaled(readNumber(figure, name, decimal), size, name, [units.volume, own], limits);
};

/** What is typed, without the unit behind it, and which of the units that is; null where there is none. */
function parted<Unit extends string>(
  text: string,
  units: Record<Unit, string>,
): { figure: string; unit: Unit | null } {
  for (const unit of Object.keys(units) as Unit[]) {
    const found = new RegExp(`^(.*\\d)\\s*(?:${units[unit]})\\.?$`, 'i').exec(text.trim());
    if (found) return { figure: found[1]!, unit };
  }
  return { figure: text, unit: null };
}

/** Reads a temperature and gives degrees Celsius: in the bar's unit, or in the one typed behind it. `limits` likewise. */
export function readTemperature(text: string, name: string, units: Units, limits: Limits): Read {
  const { figure, unit } = parted(text, { C: '[°º]?\\s*c', F: '[°º]?\\s*f' });
  const read = readNumber(figure, name);
  if (!read.ok) return read;
  const fahrenheit = (unit ?? units.temperature) === 'F';
  const celsius = fahrenheit ? fahrenheitToCelsius(read.value) : read.value;
  return within(
    celsius,
    name,
    limits,
    `°${units.temperature}`,
    units.temperature === 'F' ? celsiusToFahrenheit : (each) => each,
  );
}

/** @param barUnit the unit in which the limits are told, and its size */
function readScaled(read: Read, size: number, name: string, barUnit: [string, number], limits: Limits): Read {
  const [unit, unitSize] = barUnit;
  return read.ok ? within(read.value * size, name, limits, unit, (each) => each / unitSize) : read;
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
