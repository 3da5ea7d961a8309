/**
 * The schools that ship: one recipe each, as data.
 */
import { coneFinish, conePrep, pressFinish, pressPrep } from './method';
import type { Hold, Recipe, RecipeStep } from './recipe';

const BURNS =
  'Boiling water, steam and hot glass burn: keep handles dry. Local codes, the maker’s instructions and trained staff come first.';
const NEVER_FORCE = 'Never force a plunger: a jam can spray scalding slurry. Lift, wait, press straight.';

const pour = (id: string, name: string, atS: number, toShare: number, flowGPerS: number): RecipeStep => ({
  id,
  kind: 'pour',
  name,
  phase: 'brew',
  attended: true,
  start: { atS },
  lasts: 'pour',
  end: { by: 'weight' },
  pour: { amount: { toShare }, flowGPerS },
});

const bloom = (timesDose: number, flowGPerS: number): RecipeStep => ({
  id: 'bloom',
  kind: 'pour',
  name: 'Bloom',
  phase: 'brew',
  attended: true,
  start: { afterS: 0 },
  lasts: 'pour',
  end: { by: 'weight' },
  pour: { amount: { timesDose }, flowGPerS },
  anchor: 'start',
});

/** A short step of the hands that follows straight on a pour and ends by the clock. */
const straightOn = (id: string, kind: 'swirl' | 'stir', name: string, lengthS = 4): RecipeStep => ({
  id,
  kind,
  name,
  phase: 'brew',
  attended: true,
  start: { afterS: 0 },
  lasts: { s: lengthS },
  end: { by: 'clock' },
});

const drawdown: RecipeStep = {
  id: 'drawdown',
  kind: 'drawdown',
  name: 'Drawdown',
  phase: 'brew',
  attended: false,
  start: { afterS: 0 },
  lasts: 'drawdown',
  end: { by: 'cue', cue: 'drops only' },
};

const holdsTo = (lastPour: string): Hold[] => [
  { tool: 'grinder', from: 'grind', to: 'grind' },
  { tool: 'kettle', from: 'fill', to: lastPour },
  { tool: 'brewer', from: 'fill', to: 'clean' },
];

const coneThirds: Recipe = {
  id: 'cone-thirds',
  version: 1,
  method: 'cone',
  name: 'Bloom and three pours',
  why: 'Clear and lively; each pour is a chance to correct the one before it.',
  refDoseG: 18,
  ratio: 16.2,
  bypassTimesDose: 0,
  grindBand: 52,
  waterC: 94,
  endWindowS: { from: 170, to: 205 },
  steps: [
    ...conePrep,
    bloom(2.4, 6),
    straightOn('swirl-bloom', 'swirl', 'Swirl the bloom'),
    pour('pour-2', 'First of three pours', 40, 0.45, 5),
    pour('pour-3', 'Second of three pours', 70, 0.75, 5),
    pour('pour-4', 'Last of three pours', 100, 1, 5),
    straightOn('swirl-end', 'swirl', 'Swirl'),
    drawdown,
    ...coneFinish,
  ],
  holds: holdsTo('pour-4'),
  cautions: [BURNS],
};

const coneSteady: Recipe = {
  id: 'cone-steady',
  version: 1,
  method: 'cone',
  name: 'Bloom, stirred, then one even pour',
  why: 'Round and even; one long pour, kept near the rim, for a steady hand.',
  refDoseG: 20,
  ratio: 15.4,
  bypassTimesDose: 0,
  grindBand: 50,
  waterC: 94,
  endWindowS: { from: 160, to: 200 },
  steps: [
    ...conePrep,
    bloom(2, 8),
    straightOn('stir-bloom', 'stir', 'Stir the bloom', 5),
    {
      id: 'settle',
      kind: 'watch',
      name: 'Bloom settling',
      phase: 'brew',
      attended: false,
      start: { afterS: 0 },
      lasts: { s: 28 },
      end: { by: 'cue', cue: 'bloom has settled' },
    },
    {
      ...pour('pour-2', 'The one pour', 38, 1, 4.5),
      start: { afterS: 0 },
      hint: 'Keep the slurry near the rim.',
    },
    straightOn('stir-end', 'stir', 'Stir gently'),
    drawdown,
    ...coneFinish,
  ],
  holds: holdsTo('pour-2'),
  cautions: [BURNS],
};

const patient = { earlyS: 0, lateS: 60, penalty: 0.3 };

const pressLong: Recipe = {
  id: 'press-long',
  version: 1,
  method: 'press',
  name: 'Settle before plunging',
  why: 'Heavy and sweet; the long wait lets the fines sink, and needs no hands.',
  refDoseG: 42,
  ratio: 15.7,
  bypassTimesDose: 0,
  grindBand: 20,
  waterC: 95,
  endWindowS: { from: 460, to: 520 },
  steps: [
    ...pressPrep,
    {
      id: 'pour',
      kind: 'pour',
      name: 'All the water',
      phase: 'brew',
      attended: true,
      start: { afterS: 0 },
      lasts: 'pour',
      end: { by: 'weight' },
      pour: { amount: { toShare: 1 }, flowGPerS: 20 },
      anchor: 'end',
    },
    straightOn('wet', 'stir', 'Wet with a short push, lid on', 5),
    {
      id: 'steep',
      kind: 'settle',
      name: 'Steeping',
      phase: 'brew',
      attended: false,
      start: { afterS: 0 },
      lasts: { s: 395 },
      end: { by: 'clock' },
    },
    {
      id: 'dip',
      kind: 'dip',
      name: 'Dip down and up, so the crust falls',
      phase: 'brew',
      attended: true,
      start: { atS: 400 },
      lasts: { s: 5 },
      end: { by: 'cue', cue: 'crust has fallen' },
      window: patient,
    },
    {
      id: 'plunge',
      kind: 'plunge',
      name: 'Plunge with almost no force',
      phase: 'brew',
      attended: true,
      start: { atS: 440 },
      lasts: { s: 20 },
      end: { by: 'cue', cue: 'plunge done' },
      window: patient,
      hint: NEVER_FORCE,
    },
    ...pressFinish,
  ],
  holds: holdsTo('pour'),
  cautions: [BURNS, NEVER_FORCE],
};

/** Every recipe that ships with Even Kettle. */
export const SCHOOLS: readonly Recipe[] = [coneThirds, coneSteady, pressLong];

/** Looks a recipe up by id and version; undefined where there is none. */
export type RecipeBook = (ref: { recipeId: string; recipeVersion: number }) => Recipe | undefined;

/** A book of the given recipes. */
export function bookOf(recipes: readonly Recipe[]): RecipeBook {
  const byRef = new Map(recipes.map((recipe) => [`${recipe.id}@${recipe.version}`, recipe]));
  return ({ recipeId, recipeVersion }) => byRef.get(`${recipeId}@${recipeVersion}`);
}
