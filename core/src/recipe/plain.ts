/**
 * A recipe as people write it: grams and seconds for one cup. `recipeFromPlain` makes it relative, so that it serves every
 * cup, with the method's own prep, finish and cautions around it.
 */
import type { WaterPath } from '../pour';
import { showClock } from '../units';
import { METHODS, SCHOOLS } from './methods';
import { BESIDE_THE_BED, addWater, straightOn, warmCup } from './methods/parts';
import { filterNameOf, schoolsWith, type PlainFilter } from './filter';
import { referenceOf } from './lay-out';
import { atOnce, windowOf } from './plain-at-once';
import type { Amount, BedPreparation, MethodId, Recipe, RecipeStep, StartCue, StepStart } from './recipe';
import { round } from './round';
import { ROAST_SHIFT_C, followsRoast, type RoastLevel } from './temperature';
import type { Fault } from './check';

export type PlainStart = { atS: number } | { waitS: number } | 'not said';
/** `toG` on the scale, `addG` more; `g` alone is either; the rest of the water. */
export type PlainAmount = { toG: number } | { addG: number } | { g: number } | 'rest';
export type PlainPour = {
  start: PlainStart;
  amount: PlainAmount;
  then?: 'swirl' | 'stir';
  path?: WaterPath;
  /** It waits until this is seen; a start that is said is when that is expected. */
  cue?: StartCue;
  /** Where it is not the recipe's own, °C. */
  waterC?: number;
};
/** A stir: when by the timer, and how many times or for how long, as far as that is said. */
export type PlainStir = { atS?: number; times?: number; forS?: number };

/** Times are readings of the timer that the coffee's meeting with the water starts, seconds. */
export type PlainRecipe = {
  method: MethodId;
  name: string;
  doseG: number;
  waterG: number;
  waterC: number;
  grindBand?: number;
  filter?: PlainFilter;
  bed?: BedPreparation;
  /** The roast that its temperature is meant for; medium where nothing is said. */
  roast?: RoastLevel;
  /** Empty where all the water goes in at once. */
  pours: PlainPour[];
  stirs?: PlainStir[];
  /** When the flame goes off. */
  flameOffS?: number;
  /** When it is plunged or pressed, and how long that takes. */
  plungeS?: number;
  pressForS?: number;
  /** Water that the filter is rinsed with, thrown away. */
  rinseG?: number;
  /** What the brewer holds, where that is said. */
  brewerMl?: number;
  /** Water into the server afterwards. */
  bypassG?: number;
  /** Ice of every cup of it, which is no part of the water. */
  iceG?: number;
  /** How many cups it makes. */
  servings?: number;
  /** When it is dry, or done. */
  endS?: { from: number; to: number };
};

export type Settled = { ok: true; targetsG: number[] } | { ok: false; pour: number; reason: string };

/** Readings may miss the water by what printed recipes round, grams. */
const ROUNDED_G = 2;

/**
 * The scale's reading after each pour. Bare grams are taken for readings if only readings come to the water, for additions if
 * only their sum does; where both or neither do, nobody can know, and it is asked.
 */
export function settlePours(pours: readonly PlainPour[], waterG: number): Settled {
  const bare = pours.flatMap(({ amount }) => (typeof amount === 'object' && 'g' in amount ? [amount.g] : []));
  // A first pour is the same either way.
  const isFirstOnly = bare.length === 1 && typeof pours[0]!.amount === 'object' && 'g' in pours[0]!.amount;
  const ways = (['to', 'add'] as const).map((way) => targetsBy(pours, waterG, way));
  if (bare.length === 0 || isFirstOnly) return ways[0]!;
  const [to, add] = ways as [Settled, Settled];
  if (to.ok && add.ok && !sameTargets(to.targetsG, add.targetsG))
    return {
      ok: false,
      pour: pours.findLastIndex(({ amount }) => typeof amount === 'object' && 'g' in amount),
      reason: 'These grams may be what the scale reads, or what is added. Write “to 135 g” or “+94 g”.',
    };
  return to.ok ? to : add.ok ? add : to;
}

const sameTargets = (a: readonly number[], b: readonly number[]) => a.every((grams, n) => grams === b[n]);

function targetsBy(pours: readonly PlainPour[], waterG: number, bare: 'to' | 'add'): Settled {
  const targetsG: number[] = [];
  let pouredG = 0;
  for (const [pour, { amount }] of pours.entries()) {
    const isLast = pour === pours.length - 1;
    const target =
      amount === 'rest'
        ? waterG
        : 'toG' in amount
          ? amount.toG
          : 'addG' in amount
            ? pouredG + amount.addG
            : bare === 'to'
              ? amount.g
              : pouredG + amount.g;
    if (amount === 'rest' && !isLast)
      return { ok: false, pour, reason: 'Only the last pour can be the rest of the water.' };
    if (target <= pouredG)
      return { ok: false, pour, reason: `This pour adds nothing: ${round(pouredG, 1)} g are in before it.` };
    if (target > waterG + ROUNDED_G)
      return {
        ok: false,
        pour,
        reason: `This pour comes to ${round(target, 1)} g; the water is ${round(waterG, 1)} g.`,
      };
    pouredG = target;
    targetsG.push(target);
  }
  const last = pours.length - 1;
  if (last >= 0 && pouredG < waterG - ROUNDED_G)
    return {
      ok: false,
      pour: last,
      reason: `The pours come to ${round(pouredG, 1)} g of ${round(waterG, 1)} g. End with “rest”, or mend a figure.`,
    };
  if (last >= 0) targetsG[last] = waterG;
  return { ok: true, targetsG };
}

export type FromPlain = { ok: true; recipe: Recipe; targetsG: number[] } | { ok: false; faults: Fault[] };

/** A flow that suits most spouts, and the quickest that a pour is given to end before the next one, g/s. */
const FLOW_G_PER_S = 5;
const QUICKEST_G_PER_S = 12;
/** Between a pour's end and the next start, seconds. */
const BETWEEN_S = 4;
/** A first pour of less than this, times the dose, is a bloom. */
const BLOOM_TIMES = 4;

const COUNT = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth', 'Ninth', 'Tenth'];
const NUMBER = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
/** As many pours as one brew is given. */
const POURS_MAX = 20;

const refused = (field: string, reason: string): FromPlain => ({ ok: false, faults: [{ field, reason }] });

/** The recipe, or what is still wrong, by the fields of the form (`pours.1`). */
export function recipeFromPlain(plain: PlainRecipe, id: string): FromPlain {
  const { waterG, brewerMl, method } = plain;
  if (brewerMl !== undefined && waterG > brewerMl && METHODS[method].drawdownExponent === null)
    return refused(
      'waterG',
      `${waterG} g of water are more than a brewer of ${brewerMl} ml holds. Say less water, or a larger brewer.`,
    );
  const template = templateOf(plain);
  const base = baseOf(plain, template, id);
  if (METHODS[plain.method].drawdownExponent === null) {
    if (plain.pours.length > 1)
      return refused('pours', `A ${METHODS[plain.method].name.toLowerCase()} takes all its water at once.`);
    const made = atOnce({ ...base, steps: base.steps.map((step) => rinsed(step, plain)) }, plain);
    return made.ok ? { ok: true, recipe: made.recipe, targetsG: [plain.waterG] } : made;
  }
  if (plain.pours.length === 0)
    return refused('pours', 'Say how the water is poured: 0:00 41, 0:36 +94, rest.');
  if (plain.pours.length > POURS_MAX) return refused('pours', `At most ${POURS_MAX} pours.`);
  const settled = settlePours(plain.pours, plain.waterG);
  if (!settled.ok) return refused(`pours.${settled.pour}`, settled.reason);
  const unsaid = plain.pours.findIndex(({ start, cue }, pour) => pour > 0 && start === 'not said' && !cue);
  if (unsaid > 0) return refused(`pours.${unsaid}`, 'Say when: 0:36, or “wait 30 s”.');
  const { targetsG } = settled;
  const pours = poursOf(plain, targetsG);
  const before = template.steps.filter(({ phase }) => phase === 'prep').map((step) => rinsed(step, plain));
  const after = template.steps.filter(
    ({ phase, kind }) => (phase === 'finish' || phase === 'clean') && kind !== 'bypass',
  );
  const drawdown = SCHOOLS.flatMap(({ steps }) => steps).find(({ kind }) => kind === 'drawdown')!;
  const bypass = plain.bypassG ? [addWater(BESIDE_THE_BED)] : [];
  const steps = [...before, ...pours, warmCup, drawdown, ...bypass, ...after];
  const last = steps.findLast(({ pour }) => pour)!;
  const lastWater = bypass[0]?.id ?? warmCup.id;
  const recipe: Recipe = {
    ...base,
    steps,
    holds: template.holds.map((hold) => (hold.tool === 'kettle' ? { ...hold, to: lastWater } : hold)),
    // Known only once its pours are laid out.
    endWindowS: { from: 1, to: 2 },
  };
  const endWindowS = endOf(recipe, template, plain, last);
  const { lastPourEndS } = referenceOf({ ...recipe, id: `${id} end` });
  if (plain.endS && plain.endS.to <= lastPourEndS)
    return refused(
      'endS',
      `It cannot be dry at ${showClock(plain.endS.to)}: the last pour ends at ${showClock(lastPourEndS)}.`,
    );
  return { ok: true, recipe: { ...recipe, endWindowS }, targetsG };
}

/** How much it is rinsed with is said where it is rinsed. */
const rinsed = (step: RecipeStep, { rinseG }: PlainRecipe): RecipeStep =>
  step.kind === 'set-filter' && rinseG
    ? { ...step, hint: `Rinse with ${Math.round(rinseG)} g; that is thrown away.` }
    : step;

/** The method's school with this filter, so that what is prepared and cleaned is that filter's; else its first. */
function templateOf({ method, filter, bypassG }: PlainRecipe): Recipe {
  const own = SCHOOLS.filter((school) => school.method === method);
  const fitting = filter === undefined ? [] : schoolsWith(method, filter);
  return (fitting.find(({ bypassTimesDose }) => bypassTimesDose > 0 === (bypassG ?? 0) > 0) ??
    fitting[0] ??
    own[0])!;
}

/** All that its steps do not say. */
function baseOf(plain: PlainRecipe, template: Recipe, id: string): Recipe {
  const { doseG, waterG, waterC, filter, bed, roast = 'medium', bypassG = 0, iceG, servings } = plain;
  const base: Recipe = {
    ...template,
    id,
    version: 1,
    name: plain.name,
    why: `Entered as it was written: ${doseG} g and ${Math.round(waterG)} g of water.`,
    filter: filter === undefined ? template.filter : filterNameOf(template.filter, filter),
    bed: bed ?? template.bed,
    refDoseG: doseG,
    ratio: round(waterG / doseG, 3),
    waterC,
    bypassTimesDose: round(bypassG / doseG, 4),
    grindBand: plain.grindBand ?? template.grindBand,
    ...(iceG === undefined ? {} : { iceTimesDose: round(iceG / doseG, 4) }),
    ...(servings === undefined || servings < 2 ? {} : { servings }),
  };
  delete base.otherwise;
  // Recipes are kept for a medium roast: with its own roast the water is then as it was said.
  return followsRoast(base) ? { ...base, waterC: round(waterC - ROAST_SHIFT_C[roast], 1) } : base;
}

function poursOf(plain: PlainRecipe, targetsG: readonly number[]): RecipeStep[] {
  const { pours, doseG, waterG, waterC } = plain;
  const blooms = pours.length > 1 && targetsG[0]! <= BLOOM_TIMES * doseG;
  const named = pours.length - (blooms ? 1 : 0);
  let atS = 0;
  let endsS = 0;
  return pours.flatMap(({ start, then, path, cue, waterC: ownC }, index) => {
    const isBloom = blooms && index === 0;
    const number = index - (blooms ? 1 : 0);
    const addsG = targetsG[index]! - (targetsG[index - 1] ?? 0);
    const next = pours[index + 1]?.start;
    if (start !== 'not said') atS = 'atS' in start ? start.atS : endsS + start.waitS;
    else if (index > 0) atS = endsS + DRAINS_S;
    // A printed recipe that leaves less time for a pour means a quicker one.
    const roomS = next && next !== 'not said' && 'atS' in next ? next.atS - atS - BETWEEN_S : Infinity;
    const flowGPerS = round(
      Math.min(QUICKEST_G_PER_S, Math.max(FLOW_G_PER_S, roomS > 0 ? addsG / roomS : QUICKEST_G_PER_S)),
      1,
    );
    endsS = atS + addsG / flowGPerS + (then ? SHORT_S : 0);
    const amount: Amount = isBloom
      ? { timesDose: round(targetsG[0]! / doseG, 3) }
      : index === pours.length - 1
        ? { toShare: 1 }
        : { toShare: round(targetsG[index]! / waterG, 4) };
    const begins: StepStart =
      index === 0
        ? { afterS: 0 }
        : cue
          ? { when: cue, aboutS: Math.round(atS) }
          : start === 'not said'
            ? { afterS: 0 }
            : 'atS' in start
              ? { atS: start.atS }
              : { afterS: start.waitS };
    const step: RecipeStep = {
      id: isBloom ? 'bloom' : `pour-${number + 1}`,
      kind: 'pour',
      name: isBloom ? 'Bloom' : pourName(number, named),
      phase: 'brew',
      attended: true,
      start: begins,
      lasts: 'pour',
      end: { by: 'weight' },
      pour: {
        amount,
        flowGPerS,
        ...(path ? { paths: [{ path }] } : {}),
        ...(ownC === undefined || ownC === waterC ? {} : { waterC: ownC }),
      },
      ...(index === 0 ? { anchor: 'start' as const } : {}),
    };
    return then
      ? [step, straightOn(`${then}-${index + 1}`, then, then === 'swirl' ? 'Swirl' : 'Stir')]
      : [step];
  });
}

/** From a pour's end until a bed is about to show, about, where nobody says how long. */
const DRAINS_S = 30;
/** A swirl or a stir after it. */
const SHORT_S = 4;

function pourName(number: number, named: number): string {
  if (named === 1) return 'The one pour';
  if (named > COUNT.length) return `Pour ${number + 1} of ${named}`;
  return `${number === named - 1 ? 'Last' : COUNT[number]} of ${NUMBER[named]} pours`;
}

/** As it was written; else the last pour and the drawdown that the method's usual recipe has for such a dose. */
function endOf(recipe: Recipe, template: Recipe, plain: PlainRecipe, last: RecipeStep): Recipe['endWindowS'] {
  if (plain.endS) return windowOf(plain.endS);
  const exponent = METHODS[plain.method].drawdownExponent ?? 0;
  const { lastPourEndS } = referenceOf(template);
  const grown = (plain.doseG / template.refDoseG) ** exponent;
  const { from, to } = template.endWindowS;
  // The window does not move where the pours end.
  const pouredS = referenceOf({ ...recipe, id: `${recipe.id} ${last.id}` }).lastPourEndS;
  const edge = (atS: number) => Math.round(pouredS + (atS - lastPourEndS) * grown);
  return { from: Math.max(1, edge(from)), to: Math.max(2, edge(to)) };
}
