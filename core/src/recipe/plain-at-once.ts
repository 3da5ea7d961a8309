/**
 * A recipe whose water goes in at once, from what was said of it: stirs, flame, plunge and end are put at their times. What was said and
 * cannot be is refused, never dropped; what was not said is the method's usual.
 */
import { showClock } from '../units';
import type { Fault } from './check';
import { addWater, handStep, passive, straightOn } from './methods/parts';
import type { PlainRecipe, PlainStir } from './plain';
import type { Recipe, RecipeStep } from './recipe';

type Made = { ok: true; recipe: Recipe } | { ok: false; faults: Fault[] };

const refused = (field: string, reason: string): Made => ({ ok: false, faults: [{ field, reason }] });

/** Hands take so long to stir once, and before that, seconds. */
const EACH_STIR_S = 0.8;
const STIR_FROM_S = 4;
const stirS = ({ times, forS }: PlainStir, usualS: number): number =>
  forS ?? (times === undefined ? usualS : Math.ceil(STIR_FROM_S + EACH_STIR_S * times));

/** A stir in words, behind what else the step does. */
function stirWords({ times, forS }: PlainStir, capital = false): string {
  const word = capital ? 'Stir' : 'stir';
  if (forS !== undefined) return `${word} for ${forS} s`;
  return times === undefined ? word : `${word} ${times}`;
}
const counted = ({ times }: PlainStir) => (times === undefined ? {} : { stirs: times });

/** What is about a time that was said. */
const ABOUT_S = 10;

export function atOnce(base: Recipe, plain: PlainRecipe): Made {
  switch (plain.method) {
    case 'siphon':
      return siphon(base, plain);
    case 'press':
      return press(base, plain);
    case 'air-press':
      return airPress(base, plain);
    default:
      return pot(base, plain);
  }
}

const stepOf = ({ steps }: Recipe, id: string): RecipeStep => steps.find((step) => step.id === id)!;
const replaced = (
  steps: readonly RecipeStep[],
  changed: Readonly<Record<string, Partial<RecipeStep>>>,
): RecipeStep[] => steps.map((step) => (changed[step.id] ? { ...step, ...changed[step.id] } : step));

function siphon(base: Recipe, plain: PlainRecipe): Made {
  const { stirs = [], endS } = plain;
  const offS = plain.flameOffS ?? usualAtS(base, 'flame-off');
  const [first = {}, ...others] = stirs;
  // The last is as the flame goes off, where it is not said otherwise.
  const last = others.at(-1);
  const second = last && Math.abs((last.atS ?? offS) - offS) <= 5 ? last : undefined;
  const more = second ? others.slice(0, -1) : others;
  if (more.some(({ atS }) => atS === undefined || atS >= offS || atS < 15))
    return refused(
      'stirs',
      'A siphon is stirred as the coffee goes in and as the flame goes off. Say when the others are: stir 3 at 0:30.',
    );
  const coffeeS = stirs.length === 0 ? 12 : stirS(first, 12);
  const offLastsS = second ? stirS(second, 6) : 4;
  if (offS <= coffeeS)
    return refused(
      'flameOffS',
      `The flame cannot go off at ${showClock(offS)}: the stirring takes ${coffeeS} s.`,
    );
  const done = endS ?? { from: offS + 45, to: offS + 75 };
  if (done.to <= offS + offLastsS)
    return refused(
      'endS',
      `It cannot be down at ${showClock(done.to)}: the flame goes off at ${showClock(offS)}.`,
    );
  const between = more.map((stir, n): RecipeStep =>
    handStep(`stir-${n + 2}`, 'stir', stirWords(stir, true), stirS(stir, 6), 'stirred', {
      start: { atS: stir.atS! },
      ...counted(stir),
    }),
  );
  const steps = replaced(base.steps, {
    'coffee-in': {
      name: stirs.length === 0 ? 'Coffee in, all under' : `Coffee in, ${stirWords(first)}`,
      lasts: { s: coffeeS },
      ...counted(first),
    },
    steep: { lasts: { untilS: between[0] ? more[0]!.atS! : offS } },
    'flame-off': {
      name: second ? `Flame off, ${stirWords(second)}` : 'Flame off',
      start: { atS: offS },
      lasts: { s: offLastsS },
      stirs: second?.times,
    },
    down: { lasts: { untilS: Math.round((done.from + done.to) / 2) } },
    lower: { checkC: { from: Math.round(plain.waterC - 1), to: Math.round(plain.waterC + 1) } },
  }).flatMap((step) => (step.id === 'flame-off' ? [...between, step] : [step]));
  return { ok: true, recipe: { ...base, endWindowS: windowOf(done), steps: steps.map(withoutEmpty) } };
}

function press(base: Recipe, plain: PlainRecipe): Made {
  const { stirs = [], pressForS = 25 } = plain;
  // An end alone is when it is plunged.
  const plungeS = plain.plungeS ?? plungedBefore(plain.endS) ?? usualAtS(base, 'plunge');
  // What has no time of its own is done as the water goes in, and a second one before the plunge.
  const [first, ...others] = stirs;
  const opening = first && (first.atS ?? 0) < 30 ? first : undefined;
  const later = (opening ? others : stirs).map((stir) => ({ ...stir, atS: stir.atS ?? plungeS }));
  const tooLate = later.find(({ atS }) => atS > plungeS);
  if (tooLate)
    return refused(
      'stirs',
      `It is plunged at ${showClock(plungeS)}, and cannot be stirred at ${showClock(tooLate.atS)}.`,
    );
  const openingS = opening ? stirS(opening, 6) : 5;
  if (plungeS <= openingS + 5)
    return refused(
      'plungeS',
      `It cannot be plunged at ${showClock(plungeS)}: the water and the stirring come first.`,
    );
  const pour = stepOf(base, 'pour');
  const warm = base.steps.find(({ kind, id }) => kind === 'warm' && id !== 'set-filter');
  const brew: RecipeStep[] = [
    pour,
    opening
      ? { ...straightOn('stir', 'stir', stirWords(opening, true), openingS), ...counted(opening) }
      : straightOn('wet', 'stir', 'Wet with a short push, lid on', 5),
    ...(warm ? [warm] : []),
  ];
  let fromS = 0;
  let busyS = 0;
  later
    .toSorted((a, b) => a.atS - b.atS)
    .forEach((stir, n) => {
      const lastsS = stirS(stir, 5);
      if (stir.atS > fromS) brew.push(passive(`steep-${n + 1}`, 'settle', 'Steeping', { untilS: stir.atS }));
      brew.push(
        handStep(`stir-${n + 2}`, 'stir', stirWords(stir, true), lastsS, 'stirred', {
          start: { atS: stir.atS },
          window: PATIENT,
          ...counted(stir),
        }),
      );
      fromS = stir.atS + 1;
      busyS = stir.atS + lastsS;
    });
  const beginsS = Math.max(plungeS, busyS);
  if (plungeS > fromS) brew.push(passive('steep', 'settle', 'Steeping', { untilS: beginsS }));
  const plunge = stepOf(base, 'plunge');
  brew.push({ ...plunge, name: 'Plunge slowly', start: { atS: beginsS }, lasts: { s: pressForS } });
  const end = plain.endS ?? { from: beginsS + pressForS - 5, to: beginsS + pressForS + 40 };
  if (end.to <= plungeS)
    return refused(
      'endS',
      `It cannot be done at ${showClock(end.to)}: it is plunged at ${showClock(plungeS)}.`,
    );
  return {
    ok: true,
    recipe: withBypass({ ...base, endWindowS: windowOf(end), steps: around(base, brew) }, plain),
  };
}

const plungedBefore = (end: PlainRecipe['endS']): number | undefined =>
  end && (end.to - end.from < 2 ? end.from - ABOUT_S : end.from);

/** Nothing spoils while a press waits. */
const PATIENT = { earlyS: 0, lateS: 60, penalty: 0.3 };

function airPress(base: Recipe, plain: PlainRecipe): Made {
  const { stirs = [], pressForS = 28 } = plain;
  const pour = stepOf(base, 'pour');
  const squeeze = { ...stepOf(base, 'press'), name: 'Press to the hiss', lasts: { s: pressForS } };
  if (plain.plungeS === undefined && plain.pressForS === undefined && !plain.endS && stirs.length === 0)
    return { ok: true, recipe: withBypass(base, plain) };
  const list = stirs.length === 0 ? [{}] : stirs;
  const brew: RecipeStep[] = [pour];
  let busyS = 12;
  list.forEach((stir, n) => {
    const lastsS = stirS(stir, 10);
    const id = n === 0 ? 'stir' : `stir-${n + 1}`;
    if (stir.atS !== undefined && stir.atS > busyS) {
      brew.push(passive(`steep-${n}`, 'settle', 'Steeping', { untilS: stir.atS }));
      brew.push(
        handStep(id, 'stir', stirWords(stir, true), lastsS, 'stirred', {
          start: { atS: stir.atS },
          ...counted(stir),
        }),
      );
      busyS = stir.atS + lastsS;
      return;
    }
    brew.push({ ...straightOn(id, 'stir', stirWords(stir, true), lastsS), ...counted(stir) });
    busyS += lastsS;
  });
  // Where nothing is said of it, it is pressed to be through when the method usually is.
  const endsS = plain.endS?.from ?? base.endWindowS.from;
  const atS = plain.plungeS ?? Math.max(busyS, endsS - pressForS);
  if (atS < busyS)
    return refused(
      'plungeS',
      `It cannot be pressed at ${showClock(atS)}: water and stirring take until ${showClock(busyS)}.`,
    );
  brew.push(passive('steep', 'settle', 'Steeping', { untilS: Math.round(atS) }), {
    ...squeeze,
    start: { atS: Math.round(atS) },
  });
  const end = plain.endS ?? { from: atS + pressForS - 5, to: atS + pressForS + 8 };
  if (end.to <= atS)
    return refused('endS', `It cannot be done at ${showClock(end.to)}: it is pressed at ${showClock(atS)}.`);
  return {
    ok: true,
    recipe: withBypass({ ...base, endWindowS: windowOf(end), steps: around(base, brew) }, plain),
  };
}

/** A pot is driven by what is seen: its times are when that is expected. */
function pot(base: Recipe, plain: PlainRecipe): Made {
  const { stirs = [], flameOffS, endS } = plain;
  if (stirs.length > 1 || (stirs.length > 0 && !base.steps.some(({ id }) => id === 'stir')))
    return refused(
      'stirs',
      stirs.length > 1
        ? 'This pot is stirred once, before the flame.'
        : 'A pressure pot is not stirred while it brews.',
    );
  const usualS = base.steps.reduce(
    (sum, { lasts, phase, attended }) =>
      sum +
      (phase === 'brew' && typeof lasts === 'object' && 'sAtRef' in lasts
        ? lasts.sAtRef
        : phase === 'brew' && attended && typeof lasts === 'object' && 's' in lasts
          ? lasts.s
          : 0),
    0,
  );
  const offS = flameOffS ?? (endS ? (endS.from + endS.to) / 2 : usualS);
  const grown = offS / usualS;
  const [stir] = stirs;
  const steps = base.steps.map((step) => {
    if (step.phase === 'brew' && typeof step.lasts === 'object' && 'sAtRef' in step.lasts)
      return { ...step, lasts: { sAtRef: Math.max(1, Math.round(step.lasts.sAtRef * grown)) } };
    if (step.id === 'stir' && stir)
      return {
        ...step,
        name: `Coffee into cool water, ${stirWords(stir)}`,
        lasts: { s: stirS(stir, 20) },
        ...counted(stir),
      };
    return step;
  });
  if (!flameOffS && !endS) return { ok: true, recipe: { ...base, steps } };
  const end = endS ?? { from: offS - 20, to: offS + 25 };
  return { ok: true, recipe: { ...base, endWindowS: windowOf(end), steps } };
}

const usualAtS = ({ steps }: Recipe, id: string): number => {
  const start = steps.find((step) => step.id === id)?.start;
  return start && 'atS' in start ? start.atS : 0;
};
/** A window of the end, where one time may be all that was said. */
export const windowOf = ({ from, to }: { from: number; to: number }): Recipe['endWindowS'] =>
  to - from < 2
    ? { from: Math.max(1, from - ABOUT_S), to: to + ABOUT_S }
    : { from: Math.max(1, Math.round(from)), to: Math.round(to) };

/** The method's own preparations and its end around what is brewed. */
const around = ({ steps }: Recipe, brew: readonly RecipeStep[]): RecipeStep[] => [
  ...steps.filter(({ phase }) => phase === 'prep'),
  ...brew,
  ...steps.filter(({ phase }) => phase === 'finish' || phase === 'clean'),
];

function withBypass(recipe: Recipe, { bypassG = 0 }: PlainRecipe): Recipe {
  if (bypassG === 0) return recipe;
  const add = addWater('Once the coffee is out of the press.');
  const at = recipe.steps.findIndex(({ kind }) => kind === 'serve');
  return {
    ...recipe,
    steps: recipe.steps.toSpliced(at, 0, add),
    holds: recipe.holds.map((hold) => (hold.tool === 'kettle' ? { ...hold, to: add.id } : hold)),
  };
}

/** A field that says nothing is not there. */
const withoutEmpty = (step: RecipeStep): RecipeStep =>
  Object.fromEntries(Object.entries(step).filter(([, value]) => value !== undefined)) as RecipeStep;
