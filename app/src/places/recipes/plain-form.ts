/**
 * The form for a new recipe: what is typed, as it stands on a bag of coffee, and what it makes.
 */
import type { ReadText } from '@even-kettle/core/formats';
import {
  DOSE_RANGE_G,
  METHODS,
  RATIO_RANGE,
  recipeFromPlain,
  type FromPlain,
  type MethodId,
  type PlainPour,
} from '@even-kettle/core/recipe';
import {
  G_PER_OZ,
  celsiusToFahrenheit,
  readMass,
  readNumber,
  readTemperature,
  showClock,
  type Read,
  type Units,
} from '@even-kettle/core/units';
import { schemas } from '../../client/load-schemas';
import { DECIMAL } from '../../ui/typed';
import { idFor } from './draft';
import { WORDS } from './words';

export type PlainForm = {
  method: MethodId;
  name: string;
  /** A mass, "1:16", "60 g/l" or "3 spoons". */
  dose: string;
  water: string;
  temperature: string;
  pours: string;
  /** When it is dry, or plunged: "2:50-3:20". Left empty: as usual for the method. */
  end: string;
  grindBand: string;
};

export const EMPTY_FORM: PlainForm = {
  method: 'cone',
  name: '',
  dose: '',
  water: '',
  temperature: '',
  pours: '',
  end: '',
  grindBand: '',
};

export type FormField = keyof PlainForm;
export type ReadForm = {
  /** What is wrong, by field; nothing while a field that is needed is still empty. */
  faults: Partial<Record<FormField, string>>;
  made: Extract<FromPlain, { ok: true }> | null;
  pours: PlainPour[];
};

const WATER_G = { min: 40, max: 2000 };
const WATER_C = { min: 1, max: 100 };

/** @param taken ids of recipes that there are already */
export function readForm(
  form: PlainForm,
  units: Units,
  spoonG: number,
  taken: ReadonlySet<string>,
): ReadForm {
  const faults: ReadForm['faults'] = {};
  const valueOf = (field: FormField, read: Read): number | null => {
    if (form[field].trim() === '') return null;
    if (!read.ok) faults[field] = read.reason;
    return read.ok ? read.value : null;
  };
  // A millilitre of water is a gram of it.
  const water = form.water.replace(/(\d)\s*ml\s*$/i, '$1 g');
  const waterG = valueOf('water', readMass(water, WORDS.brewWater, units, WATER_G, DECIMAL));
  const doseG = valueOf('dose', readDose(form.dose, waterG, units, spoonG));
  const waterC = valueOf('temperature', readTemperature(form.temperature, WORDS.water, units, WATER_C));
  const grindBand = valueOf('grindBand', readBand(form.grindBand));
  const { readPours, readRecipeText } = schemas();
  const { pours, unread } = readPours(form.pours, {
    bareG: units.mass === 'oz' ? G_PER_OZ : 1,
    ...(doseG === null ? {} : { doseG }),
    ...(waterG === null ? {} : { waterG }),
  });
  if (unread.length > 0) faults.pours = WORDS.notUnderstood(unread[0]!);
  const end = readRecipeText(form.end.trim() === '' ? '' : `total ${form.end}`);
  if (form.end.trim() !== '' && (!end.endS || end.unread.length > 0)) faults.end = WORDS.sayTheEndLike;
  const complete =
    waterG !== null &&
    doseG !== null &&
    waterC !== null &&
    form.name.trim() !== '' &&
    Object.keys(faults).length === 0;
  if (!complete) return { faults, made: null, pours };
  const made = recipeFromPlain(
    {
      method: form.method,
      name: form.name.trim(),
      doseG,
      waterG: Math.round(waterG),
      waterC,
      pours,
      ...(grindBand === null ? {} : { grindBand }),
      ...(end.endS ? { endS: end.endS } : {}),
    },
    freeId(form, taken),
  );
  if (made.ok) return { faults, made, pours };
  const empty = form.pours.trim() === '';
  const [first] = made.faults;
  // Nothing is wrong with a field that has not been reached yet.
  if (first && !empty) faults.pours = pourFault(first.field, first.reason, pours);
  return { faults, made: null, pours };
}

/** Which pour, and where a time is missing the one that goes on at the same pace. */
function pourFault(field: string, reason: string, pours: readonly PlainPour[]): string {
  const index = Number(field.split('.')[1] ?? NaN);
  if (Number.isNaN(index)) return reason;
  const [one, two] = [pours[index - 2]?.start, pours[index - 1]?.start];
  const atS = (start: PlainPour['start'] | undefined) =>
    typeof start === 'object' && 'atS' in start ? start.atS : null;
  const [before, last] = [atS(one), atS(two)];
  const paced =
    pours[index]?.start === 'not said' && before !== null && last !== null ? 2 * last - before : null;
  return `${WORDS.pourNumber(index + 1)} ${paced === null ? reason : WORDS.sayWhen(showClock(paced))}`;
}

/** A dose as it is said: grams, a ratio, grams a litre, or spoons of a spoon that has been weighed. */
export function readDose(text: string, waterG: number | null, units: Units, spoonG: number): Read {
  const typed = text.trim();
  const ratio = /^1\s*:\s*(.+)$/.exec(typed);
  const perLitre = /^(.+?)\s*g\s*(?:\/|per)\s*l(?:it(?:re|er))?$/i.exec(typed);
  const spoons = /^(.+?)\s*(?:level\s+)?(?:table)?spoons?$/i.exec(typed);
  const within = (value: number): Read =>
    value >= DOSE_RANGE_G.min && value <= DOSE_RANGE_G.max
      ? { ok: true, value: Math.round(value * 10) / 10 }
      : { ok: false, reason: WORDS.doseFromTo(DOSE_RANGE_G.min, DOSE_RANGE_G.max) };
  if ((ratio || perLitre) && waterG === null) return { ok: false, reason: WORDS.sayTheWaterFirst };
  if (ratio) {
    const read = readNumber(ratio[1]!, WORDS.ratio, DECIMAL);
    if (!read.ok) return read;
    return read.value >= RATIO_RANGE.min && read.value <= RATIO_RANGE.max
      ? within(waterG! / read.value)
      : { ok: false, reason: WORDS.ratioFromTo(RATIO_RANGE.min, RATIO_RANGE.max) };
  }
  if (perLitre) {
    const read = readNumber(perLitre[1]!, WORDS.dose, DECIMAL);
    return read.ok ? within((waterG! / 1000) * read.value) : read;
  }
  if (spoons) {
    const read = readNumber(spoons[1]!, WORDS.dose, DECIMAL);
    if (!read.ok) return read;
    return spoonG > 0 ? within(read.value * spoonG) : { ok: false, reason: WORDS.weighASpoonFirst };
  }
  return readMass(typed, WORDS.dose, units, DOSE_RANGE_G, DECIMAL);
}

function readBand(text: string): Read {
  const read = readNumber(text, WORDS.grind, DECIMAL);
  if (!read.ok) return read;
  return read.value >= 0 && read.value <= 100 ? read : { ok: false, reason: WORDS.grindFromTo };
}

function freeId({ method, name }: PlainForm, taken: ReadonlySet<string>): string {
  const id = idFor(method, name);
  let count = 2;
  let free = id;
  while (taken.has(free)) {
    free = idFor(method, `${name} ${count}`);
    count += 1;
  }
  return free;
}

/** What a pasted text says, in the fields of the form; what is there already stays where the text says nothing. */
export function fillFrom(read: ReadText, form: PlainForm, units: Units): PlainForm {
  const mass = (grams: number) =>
    String(units.mass === 'oz' ? Math.round((grams / G_PER_OZ) * 100) / 100 : grams);
  const temperature = (atC: number) =>
    String(units.temperature === 'F' ? Math.round(celsiusToFahrenheit(atC)) : atC);
  return {
    ...form,
    ...(read.method === undefined ? {} : { method: read.method }),
    ...(read.name === undefined ? {} : { name: read.name }),
    ...(read.doseG === undefined ? {} : { dose: mass(read.doseG) }),
    ...(read.waterG === undefined ? {} : { water: mass(read.waterG) }),
    ...(read.waterC === undefined ? {} : { temperature: temperature(read.waterC) }),
    ...(read.grindBand === undefined ? {} : { grindBand: String(read.grindBand) }),
    ...(read.endS === undefined ? {} : { end: `${showClock(read.endS.from)} - ${showClock(read.endS.to)}` }),
    ...(read.pours.length === 0
      ? {}
      : { pours: read.pours.map((pour) => pourAsTyped(pour, mass)).join(', ') }),
  };
}

/** A pour as a person would type it, so that what was read can be read again and changed. */
function pourAsTyped({ start, amount, then, path }: PlainPour, mass: (grams: number) => string): string {
  const when =
    start === 'not said' ? '' : 'atS' in start ? `${showClock(start.atS)} ` : `wait ${start.waitS} s, `;
  const what =
    amount === 'rest'
      ? 'rest'
      : 'toG' in amount
        ? `to ${mass(amount.toG)}`
        : 'addG' in amount
          ? `+${mass(amount.addG)}`
          : mass(amount.g);
  // A pour that waits begins with a word, or its figure would stand alone.
  const pour = start !== 'not said' && 'waitS' in start && amount !== 'rest' ? `pour ${what}` : what;
  return [`${when}${pour}`, path, then].filter(Boolean).join(' ');
}

/** Whether the method's water is poured over a bed, so that its pours have to be said. */
export const isPoured = (method: MethodId): boolean => METHODS[method].drawdownExponent !== null;
