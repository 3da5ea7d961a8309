/**
 * The form for a new recipe: what is typed, as it stands on a bag of coffee, and what it makes.
 */
import type { Found, ReadText } from '@even-kettle/core/formats';
import {
  CUPS_RANGE,
  DOSE_RANGE_G,
  METHODS,
  RATIO_RANGE,
  recipeFromPlain,
  type BedPreparation,
  type FromPlain,
  type MethodId,
  type PlainFilter,
  type PlainPour,
  type PlainStir,
  type RoastLevel,
} from '@even-kettle/core/recipe';
import {
  G_PER_OZ,
  celsiusToFahrenheit,
  readMass,
  readNumber,
  readTemperature,
  readVolume,
  showClock,
  type Read,
  type Units,
} from '@even-kettle/core/units';
import { schemas } from '../../client/load-schemas';
import { DECIMAL } from '../../ui/typed';
import { sizeText } from '../../words/size-text';
import { idFor } from './draft';
import { WORDS } from './words';

export type PlainForm = {
  method: MethodId;
  name: string;
  /** A mass, "1:16", "60 g/l" or "3 spoons". */
  dose: string;
  water: string;
  temperature: string;
  /** What is poured, or stirred and plunged, and when. */
  pours: string;
  /** Empty: as usual for the method, and for a medium roast. */
  filter: PlainFilter | '';
  roast: RoastLevel | '';
  bed: BedPreparation | '';
  /** Water added afterwards, and water that the filter is rinsed with. */
  bypass: string;
  rinse: string;
  /** Ice of every cup of it, and how many cups it makes. */
  ice: string;
  servings: string;
  /** What the brewer holds. */
  brewer: string;
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
  filter: '',
  roast: '',
  bed: '',
  bypass: '',
  rinse: '',
  ice: '',
  servings: '',
  brewer: '',
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
const BREWER_ML = { min: 60, max: 3000 };
const ADDED_G = { min: 1, max: 1000 };

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
  const bypassG = valueOf('bypass', readMass(form.bypass, WORDS.addedAfterwards, units, ADDED_G, DECIMAL));
  const rinseG = valueOf('rinse', readMass(form.rinse, WORDS.rinseWater, units, ADDED_G, DECIMAL));
  const iceG = valueOf('ice', readMass(form.ice, WORDS.ice, units, ADDED_G, DECIMAL));
  const brewerMl = valueOf('brewer', readVolume(form.brewer, WORDS.brewerHolds, units, BREWER_ML));
  const servings = valueOf('servings', readCups(form.servings));
  const { pourOf, readRecipeText, readSteps, timesOf } = schemas();
  const steps = readSteps(form.pours, {
    method: form.method,
    inOunces: units.mass === 'oz',
    ...(doseG === null ? {} : { doseG }),
    ...(waterG === null ? {} : { waterG }),
  });
  const pours = steps.pours.map(pourOf);
  if (steps.unread.length > 0) faults.pours = WORDS.notUnderstood(steps.unread[0]!);
  const end = readRecipeText(form.end.trim() === '' ? '' : `${form.method}, total ${form.end}`);
  if (form.end.trim() !== '' && (!end.doneS || end.unread.length > 0)) faults.end = WORDS.sayTheEndLike;
  const complete =
    waterG !== null &&
    doseG !== null &&
    waterC !== null &&
    form.name.trim() !== '' &&
    Object.keys(faults).length === 0;
  if (!complete) return { faults, made: null, pours };
  const { filter, roast, bed } = form;
  const made = recipeFromPlain(
    {
      method: form.method,
      name: form.name.trim(),
      doseG,
      waterG: Math.round(waterG),
      waterC,
      pours,
      ...timesOf(form.method, steps),
      ...(grindBand === null ? {} : { grindBand }),
      ...(filter ? { filter } : {}),
      ...(roast ? { roast } : {}),
      ...(bed ? { bed } : {}),
      ...(bypassG === null ? {} : { bypassG }),
      ...(rinseG === null ? {} : { rinseG }),
      ...(brewerMl === null ? {} : { brewerMl }),
      ...(iceG === null ? {} : { iceG }),
      ...(servings === null ? {} : { servings }),
      ...(end.doneS ? { endS: { from: end.doneS[0], to: end.doneS[1] } } : {}),
    },
    freeId(form, taken),
  );
  if (made.ok) return { faults, made, pours };
  const empty = form.pours.trim() === '' && isPoured(form.method);
  const [first] = made.faults;
  if (first?.field === 'endS') faults.end = first.reason;
  else if (first?.field === 'waterG') faults.water = first.reason;
  // Nothing is wrong with a field that has not been reached yet.
  else if (first && !empty) faults.pours = pourFault(first.field, first.reason, pours);
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

function readCups(text: string): Read {
  const read = readNumber(text, WORDS.cupsItMakes, DECIMAL);
  const isRight =
    read.ok && Number.isInteger(read.value) && read.value >= CUPS_RANGE.min && read.value <= CUPS_RANGE.max;
  return isRight ? read : { ok: false, reason: WORDS.cupsFromTo(CUPS_RANGE.min, CUPS_RANGE.max) };
}

/** A grind as a figure of our scale, or in words: by name or by what it feels like. */
function readBand(text: string): Read {
  const said = /\d/.test(text) ? undefined : schemas().readRecipeText(`ground ${text}`).grindBand;
  const read: Read = said === undefined ? readNumber(text, WORDS.grind, DECIMAL) : { ok: true, value: said };
  if (!read.ok) return { ok: false, reason: WORDS.grindFromTo };
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

/** The field that holds what a place of the text says; undefined for what belongs to no field. */
const FIELD_OF: Readonly<Record<string, FormField>> = {
  method: 'method',
  name: 'name',
  doseG: 'dose',
  spoons: 'dose',
  spoonG: 'dose',
  perCupG: 'dose',
  ratio: 'dose',
  waterG: 'water',
  cups: 'water',
  cupMl: 'water',
  waterC: 'temperature',
  offBoil: 'temperature',
  grindBand: 'grindBand',
  filter: 'filter',
  roast: 'roast',
  bed: 'bed',
  bypassG: 'bypass',
  rinseG: 'rinse',
  iceG: 'ice',
  servings: 'servings',
  brewerMl: 'brewer',
  doneS: 'end',
  stirs: 'pours',
  steepS: 'pours',
  flameOffS: 'pours',
  plungeS: 'pours',
  pressForS: 'pours',
};
const fieldOf = (field: string): FormField | undefined =>
  field.startsWith('pours') ? 'pours' : FIELD_OF[field];

/** A field by its name in the form. */
export function fieldInWords(field: string): string {
  const own = fieldOf(field);
  return own ? WORDS.fieldNames[own] : field;
}

/** A part of a text: what says a field, what was not understood, or neither. */
export type SaidPart = { words: string; field?: FormField; isUnread?: true };

/** The whole text in its parts, in order. */
export function partsOf(text: string, { found, unread }: Pick<ReadText, 'found' | 'unread'>): SaidPart[] {
  const marks: { from: number; to: number; part: Omit<SaidPart, 'words'> }[] = [
    ...unread.flatMap((words) => {
      const from = text.indexOf(words);
      return from < 0 ? [] : [{ from, to: from + words.length, part: { isUnread: true as const } }];
    }),
    ...found.flatMap((place: Found) => {
      const field = fieldOf(place.field);
      return field ? [{ from: place.from, to: place.to, part: { field } }] : [];
    }),
  ].toSorted((a, b) => a.from - b.from || b.to - a.to);
  const parts: SaidPart[] = [];
  let at = 0;
  for (const { from, to, part } of marks) {
    if (from < at) continue;
    if (from > at) parts.push({ words: text.slice(at, from) });
    parts.push({ words: text.slice(from, to), ...part });
    at = to;
  }
  return at < text.length ? [...parts, { words: text.slice(at) }] : parts;
}

/** What a pasted text says, in the fields of the form; what is there already stays where the text says nothing, and where `kept` has been corrected. */
export function fillFrom(
  read: ReadText,
  form: PlainForm,
  units: Units,
  kept: ReadonlySet<FormField> = new Set(),
): PlainForm {
  const mass = (grams: number) =>
    String(units.mass === 'oz' ? Math.round((grams / G_PER_OZ) * 100) / 100 : Math.round(grams * 10) / 10);
  const temperature = (atC: number) =>
    String(units.temperature === 'F' ? Math.round(celsiusToFahrenheit(atC)) : atC);
  const plain = schemas().plainFrom({ doseG: 1, waterG: 1, method: form.method, ...read }, '');
  const waterC = plain.ok ? plain.plain.waterC : undefined;
  const steps = stepsAsTyped(read, mass);
  const found: Partial<PlainForm> = {
    ...(read.method === undefined ? {} : { method: read.method }),
    ...(read.name === undefined ? {} : { name: read.name }),
    ...(read.doseG === undefined ? {} : { dose: mass(read.doseG) }),
    ...(read.waterG === undefined ? {} : { water: mass(read.waterG) }),
    ...(waterC === undefined ? {} : { temperature: temperature(waterC) }),
    ...(read.grindBand === undefined ? {} : { grindBand: String(read.grindBand) }),
    ...(read.filter === undefined ? {} : { filter: read.filter }),
    ...(read.roast === undefined ? {} : { roast: read.roast }),
    ...(read.bed === undefined ? {} : { bed: read.bed }),
    ...(read.bypassG === undefined ? {} : { bypass: mass(read.bypassG) }),
    ...(read.rinseG === undefined ? {} : { rinse: mass(read.rinseG) }),
    ...(read.brewerMl === undefined ? {} : { brewer: sizeText(read.brewerMl, units) }),
    ...(read.iceG === undefined ? {} : { ice: mass(read.iceG) }),
    ...(read.servings === undefined ? {} : { servings: String(read.servings) }),
    ...(read.doneS === undefined
      ? {}
      : { end: [...new Set(read.doneS)].map((atS) => showClock(atS)).join(' - ') }),
    ...(steps === '' ? {} : { pours: steps }),
  };
  const corrected = Object.fromEntries([...kept].map((field) => [field, form[field]]));
  return { ...form, ...found, ...corrected };
}

/** Pours, or stirs, flame and plunge, as a person would type them. */
function stepsAsTyped(read: ReadText, mass: (grams: number) => string): string {
  if (read.pours.length > 0)
    return read.pours.map((pour) => pourAsTyped(schemas().pourOf(pour), mass)).join(', ');
  const { plungeS, flameOffS, pressForS, stirs = [] } = schemas().timesOf(read.method ?? 'cone', read);
  const asFlameGoes = ({ atS }: PlainStir) => flameOffS !== undefined && atS === flameOffS;
  const inWords = (stir: PlainStir) => {
    const when = stir.atS === undefined || asFlameGoes(stir) ? '' : `${showClock(stir.atS)} `;
    const times = stir.times === undefined ? '' : ` ${stir.times} times`;
    return `${when}stir${times}${stir.forS === undefined ? '' : ` for ${stir.forS} s`}`;
  };
  // What is stirred as the flame goes off is said behind it.
  const isLater = (stir: PlainStir, n: number) =>
    asFlameGoes(stir) || (flameOffS !== undefined && stir.atS === undefined && n > 0);
  const lasts = pressForS === undefined ? '' : ` for ${pressForS} s`;
  const press = plungeS === undefined ? '' : ` at ${showClock(plungeS)}`;
  return [
    ...stirs.filter((stir, n) => !isLater(stir, n)).map(inWords),
    ...(flameOffS === undefined ? [] : [`flame off at ${showClock(flameOffS)}`]),
    ...stirs.filter(isLater).map(inWords),
    ...(press + lasts === '' ? [] : [`press${press}${lasts}`]),
  ].join(', ');
}

/** A pour as a person would type it, so that what was read can be read again and changed. */
function pourAsTyped(
  { start, amount, then, path, cue, waterC }: PlainPour,
  mass: (grams: number) => string,
): string {
  const seen =
    cue === undefined
      ? ''
      : cue === 'stream thins'
        ? 'when the stream breaks '
        : 'when the bed is about to show ';
  const when =
    cue !== undefined
      ? `${seen}${typeof start === 'object' && 'atS' in start ? `(about ${showClock(start.atS)}) ` : ''}`
      : start === 'not said'
        ? ''
        : 'atS' in start
          ? `${showClock(start.atS)} `
          : `wait ${start.waitS} s, `;
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
  const ownC = waterC === undefined ? undefined : `at ${waterC} °C`;
  return [`${when}${pour}`, ownC, path, then].filter(Boolean).join(' ');
}

/** Whether the method's water is poured over a bed, so that its pours have to be said. */
export const isPoured = (method: MethodId): boolean => METHODS[method].drawdownExponent !== null;
