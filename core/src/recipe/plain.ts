/**
 * A recipe as people write it: grams and seconds for one cup. `recipeFromPlain` makes it relative, so that it serves every
 * cup, with the method's own prep, finish and cautions around it.
 */
import type { WaterPath } from '../pour';
import { METHODS, SCHOOLS } from './methods';
import { warmCup } from './methods/parts';
import { referenceOf } from './lay-out';
import { clockStartS, startMoved, type Amount, type MethodId, type Recipe, type RecipeStep } from './recipe';
import { round } from './round';
import type { Fault } from './check';

export type PlainStart = { atS: number } | { waitS: number } | 'not said';
/** `toG` on the scale, `addG` more; `g` alone is either; the rest of the water. */
export type PlainAmount = { toG: number } | { addG: number } | { g: number } | 'rest';
export type PlainPour = {
  start: PlainStart;
  amount: PlainAmount;
  then?: 'swirl' | 'stir';
  path?: WaterPath;
};

export type PlainRecipe = {
  method: MethodId;
  name: string;
  doseG: number;
  waterG: number;
  waterC: number;
  grindBand?: number;
  /** Empty where all the water goes in at once. */
  pours: PlainPour[];
  /** When it is dry, or when it is plunged, seconds. */
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
/** As many pours as are told apart by name. */
const POURS_MAX = 10;

/** The recipe, or what is still wrong, by the fields of the form (`pours.1`). */
export function recipeFromPlain(plain: PlainRecipe, id: string): FromPlain {
  const template = SCHOOLS.find(({ method }) => method === plain.method)!;
  const drains = METHODS[plain.method].drawdownExponent !== null;
  const base = {
    ...template,
    id,
    version: 1,
    name: plain.name,
    why: `Entered as it was written: ${plain.doseG} g and ${Math.round(plain.waterG)} g of water.`,
    refDoseG: plain.doseG,
    ratio: round(plain.waterG / plain.doseG, 3),
    waterC: plain.waterC,
    bypassTimesDose: 0,
    grindBand: plain.grindBand ?? template.grindBand,
  };
  delete base.otherwise;
  if (!drains) return unpoured(base, template, plain);
  if (plain.pours.length === 0)
    return {
      ok: false,
      faults: [{ field: 'pours', reason: 'Say how the water is poured: 0:00 41, 0:36 +94, rest.' }],
    };
  if (plain.pours.length > POURS_MAX)
    return { ok: false, faults: [{ field: 'pours', reason: `At most ${POURS_MAX} pours.` }] };
  const settled = settlePours(plain.pours, plain.waterG);
  if (!settled.ok) return { ok: false, faults: [{ field: `pours.${settled.pour}`, reason: settled.reason }] };
  const unsaid = plain.pours.findIndex(({ start }, pour) => pour > 0 && start === 'not said');
  if (unsaid > 0)
    return { ok: false, faults: [{ field: `pours.${unsaid}`, reason: 'Say when: 0:36, or “wait 30 s”.' }] };
  const { targetsG } = settled;
  const pours = poursOf(plain, targetsG);
  const before = template.steps.filter(({ phase }) => phase === 'prep');
  const after = template.steps.filter(({ phase }) => phase === 'finish' || phase === 'clean');
  const drawdown = template.steps.find(({ kind }) => kind === 'drawdown')!;
  const steps = [...before, ...pours, warmCup, drawdown, ...after];
  const last = steps.findLast(({ pour }) => pour)!;
  const recipe: Recipe = {
    ...base,
    steps,
    holds: template.holds.map((hold) => (hold.tool === 'kettle' ? { ...hold, to: warmCup.id } : hold)),
    // Known only once its pours are laid out.
    endWindowS: { from: 1, to: 2 },
  };
  return { ok: true, recipe: { ...recipe, endWindowS: endOf(recipe, template, plain, last) }, targetsG };
}

function poursOf(plain: PlainRecipe, targetsG: readonly number[]): RecipeStep[] {
  const { pours, doseG, waterG } = plain;
  const blooms = pours.length > 1 && targetsG[0]! <= BLOOM_TIMES * doseG;
  const named = pours.length - (blooms ? 1 : 0);
  let atS = 0;
  return pours.flatMap(({ start, then, path }, index) => {
    const isBloom = blooms && index === 0;
    const number = index - (blooms ? 1 : 0);
    const addsG = targetsG[index]! - (targetsG[index - 1] ?? 0);
    const next = pours[index + 1]?.start;
    if (start !== 'not said' && 'atS' in start) atS = start.atS;
    // A printed recipe that leaves less time for a pour means a quicker one.
    const roomS = next && next !== 'not said' && 'atS' in next ? next.atS - atS - BETWEEN_S : Infinity;
    const flowGPerS = round(
      Math.min(QUICKEST_G_PER_S, Math.max(FLOW_G_PER_S, roomS > 0 ? addsG / roomS : QUICKEST_G_PER_S)),
      1,
    );
    const amount: Amount = isBloom
      ? { timesDose: round(targetsG[0]! / doseG, 3) }
      : index === pours.length - 1
        ? { toShare: 1 }
        : { toShare: round(targetsG[index]! / waterG, 4) };
    const step: RecipeStep = {
      id: isBloom ? 'bloom' : `pour-${number + 1}`,
      kind: 'pour',
      name: isBloom
        ? 'Bloom'
        : named === 1
          ? 'The one pour'
          : `${number === named - 1 ? 'Last' : COUNT[number]} of ${NUMBER[named]} pours`,
      phase: 'brew',
      attended: true,
      start:
        index === 0 || start === 'not said'
          ? { afterS: 0 }
          : 'atS' in start
            ? { atS: start.atS }
            : { afterS: start.waitS },
      lasts: 'pour',
      end: { by: 'weight' },
      pour: { amount, flowGPerS, ...(path ? { paths: [{ path }] } : {}) },
      ...(index === 0 ? { anchor: 'start' as const } : {}),
    };
    return then ? [step, shortStep(then, `${then}-${index + 1}`)] : [step];
  });
}

const shortStep = (kind: 'swirl' | 'stir', id: string): RecipeStep => ({
  id,
  kind,
  name: kind === 'swirl' ? 'Swirl' : 'Stir',
  phase: 'brew',
  attended: true,
  start: { afterS: 0 },
  lasts: { s: 4 },
  end: { by: 'clock' },
});

/** As it was written; else the last pour and the drawdown that the method's usual recipe has for such a dose. */
function endOf(recipe: Recipe, template: Recipe, plain: PlainRecipe, last: RecipeStep): Recipe['endWindowS'] {
  if (plain.endS) return plain.endS;
  const exponent = METHODS[plain.method].drawdownExponent ?? 0;
  const { lastPourEndS } = referenceOf(template);
  const grown = (plain.doseG / template.refDoseG) ** exponent;
  const { from, to } = template.endWindowS;
  // The window does not move where the pours end.
  const pouredS = referenceOf({ ...recipe, id: `${recipe.id} ${last.id}` }).lastPourEndS;
  const edge = (atS: number) => Math.round(pouredS + (atS - lastPourEndS) * grown);
  return { from: Math.max(1, edge(from)), to: Math.max(2, edge(to)) };
}

/** All the water at once, and the method's own steps; where an end was written, all readings of the timer move with it. */
function unpoured(base: Recipe, template: Recipe, plain: PlainRecipe): FromPlain {
  const many = plain.pours.length > 1;
  if (many)
    return {
      ok: false,
      faults: [
        {
          field: 'pours',
          reason: `A ${METHODS[plain.method].name.toLowerCase()} takes all its water at once.`,
        },
      ],
    };
  const { endS } = plain;
  const usualS = template.steps.find(({ kind }) => kind === 'plunge')?.start;
  const usual = usualS ? clockStartS(usualS) : null;
  if (!endS || usual === null) return { ok: true, recipe: base, targetsG: [plain.waterG] };
  const byS = endS.from - usual;
  return {
    ok: true,
    targetsG: [plain.waterG],
    recipe: {
      ...base,
      endWindowS: { from: template.endWindowS.from + byS, to: template.endWindowS.to + byS },
      steps: base.steps.map((step) => {
        const until =
          typeof step.lasts === 'object' && 'untilS' in step.lasts ? step.lasts.untilS + byS : null;
        return {
          ...step,
          start: startMoved(step.start, byS),
          ...(until === null ? {} : { lasts: { untilS: Math.max(1, until) } }),
        };
      }),
    },
  };
}
