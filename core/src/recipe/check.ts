/**
 * Whether a recipe makes sense: what a schema cannot say. Faults name the field and what would be right.
 */
import { brewCard } from './card';
import { METHODS } from './methods';
import { exactAmounts } from './pours';
import { RecipeError, clockStartS, type Recipe, type RecipeStep } from './recipe';

export type Fault = { field: string; reason: string };

/** How far the pours may miss the brew water at the reference dose, shares of it. */
const REACH_TOLERANCE = 0.001;

/** Every fault that is found, in the order of the fields; empty where the recipe can be brewed. */
export function checkRecipe(recipe: Recipe): Fault[] {
  const faults = [
    ...wholeFaults(recipe),
    ...stepFaults(recipe),
    ...pourFaults(recipe),
    ...holdFaults(recipe),
  ];
  if (faults.length > 0) return faults;
  try {
    brewCard(recipe, { doseG: recipe.refDoseG });
    return [];
  } catch (error) {
    if (!(error instanceof RecipeError)) throw error;
    return [{ field: error.field, reason: error.message }];
  }
}

function wholeFaults(recipe: Recipe): Fault[] {
  const faults: Fault[] = [];
  const method = METHODS[recipe.method];
  if (recipe.endWindowS.from >= recipe.endWindowS.to)
    faults.push({ field: 'endWindowS.to', reason: 'The end window must end after it begins.' });
  const retention = recipe.retentionGPerG ?? method.retentionGPerG;
  if (recipe.ratio + recipe.bypassTimesDose <= retention)
    faults.push({
      field: 'ratio',
      reason: `At 1:${recipe.ratio} the coffee keeps all the water (${retention} g each gram); the ratio must be higher.`,
    });
  return faults;
}

// eslint-disable-next-line max-lines-per-function -- a list of faults to look for, one after another
function stepFaults({ steps, method }: Recipe): Fault[] {
  const faults: Fault[] = [];
  const at = (index: number, part: string) => `steps.${index}.${part}`;
  const seen = new Map<string, number>();
  let anchorAt = -1;
  let clockS = -Infinity;
  let phase = 0;
  for (const [index, step] of steps.entries()) {
    const earlier = seen.get(step.id);
    if (earlier !== undefined)
      faults.push({
        field: at(index, 'id'),
        reason: `Step ${earlier + 1} has the id “${step.id}” already; each step needs its own.`,
      });
    seen.set(step.id, index);

    if (PHASE_ORDER[step.phase] < phase)
      faults.push({
        field: at(index, 'phase'),
        reason: 'Prep comes before the brew, then finish, then cleaning.',
      });
    phase = Math.max(phase, PHASE_ORDER[step.phase]);

    const atS = clockStartS(step.start);
    if (atS !== null) {
      const part = 'atS' in step.start ? 'start.atS' : 'start.aboutS';
      if (anchorAt < 0 || anchorAt === index)
        faults.push({
          field: at(index, 'start'),
          reason: 'The timer has not started yet, so this step must follow on the one before it.',
        });
      if (atS < clockS)
        faults.push({
          field: at(index, part),
          reason: `Starts at ${atS} s, before the step above it (${clockS} s).`,
        });
      clockS = atS;
    }
    if (typeof step.lasts === 'object' && 'untilS' in step.lasts) {
      if (anchorAt < 0)
        faults.push({
          field: at(index, 'lasts'),
          reason: 'The timer has not started yet, so nothing can last until a reading of it.',
        });
      if (step.lasts.untilS <= clockS)
        faults.push({
          field: at(index, 'lasts.untilS'),
          reason: `Lasts until ${step.lasts.untilS} s, but starts no sooner than ${clockS} s.`,
        });
    }
    if (step.anchor) {
      if (anchorAt >= 0)
        faults.push({
          field: at(index, 'anchor'),
          reason: `Step ${anchorAt + 1} starts the timer already; only one can.`,
        });
      anchorAt = index;
      clockS = 0;
    }
    faults.push(
      ...oneStepFaults(step, method).map(({ field, reason }) => ({ field: at(index, field), reason })),
    );
  }
  if (anchorAt < 0)
    faults.push({
      field: 'steps',
      reason: `One step must start the timer: the one with ${METHODS[method].anchorMark}.`,
    });
  if (!steps.some((step) => step.phase === 'brew'))
    faults.push({ field: 'steps', reason: 'At least one step must belong to the brew itself.' });
  for (const [kind, what] of [
    ['serve', 'hands the cup over'],
    ['clean', 'cleans the station'],
  ] as const) {
    const many = steps.filter((step) => step.kind === kind).length;
    if (many !== 1)
      faults.push({
        field: 'steps',
        reason: `Exactly one step ${what} (kind “${kind}”); there ${many === 0 ? 'is none' : `are ${many}`}.`,
      });
  }
  if (steps.length > 0 && steps.at(-1)!.kind !== 'clean')
    faults.push({
      field: `steps.${steps.length - 1}.kind`,
      reason: 'The last step is cleaning: the brewer is not free before it.',
    });
  return faults;
}

const PHASE_ORDER = { prep: 0, brew: 1, finish: 2, clean: 3 } as const;

function oneStepFaults(step: RecipeStep, method: Recipe['method']): Fault[] {
  const faults: Fault[] = [];
  const counted = /\bstir(?:s|red)? (\d+)\b|\b(\d+) stirs\b/i.exec(step.name);
  const named = Number(counted?.[1] ?? counted?.[2]);
  if (counted && step.stirs !== undefined && named !== step.stirs)
    faults.push({
      field: 'name',
      reason: `Says ${named} stirs, and the step counts ${step.stirs}. Let the name say ${step.stirs}, or no number.`,
    });
  if (step.kind === 'pour' && !step.pour)
    faults.push({ field: 'pour', reason: 'A pour needs an amount and a flow.' });
  if (step.pour && step.kind !== 'pour')
    faults.push({ field: 'pour', reason: 'Only a step of kind “pour” pours brew water.' });
  if (step.lasts === 'pour' && !step.pour)
    faults.push({ field: 'lasts', reason: 'Lasts as long as its pour, but pours nothing.' });
  if (step.pour && step.lasts !== 'pour')
    faults.push({ field: 'lasts', reason: 'A pour lasts as long as its amount and flow make it.' });
  if ('when' in step.start && !step.pour)
    faults.push({ field: 'start', reason: 'Only a pour waits for the bed or the stream.' });
  faults.push(...pathFaults(step));
  if (step.lasts === 'drawdown' && METHODS[method].drawdownExponent === null)
    faults.push({ field: 'lasts', reason: 'Nothing drains by itself in this method; give its time.' });
  if (step.attended && step.end.by === 'clock' && !('afterS' in step.start && step.start.afterS === 0))
    faults.push({
      field: 'end',
      reason: 'A step that ends by the clock must follow straight on the one before it.',
    });
  return faults;
}

/** Parts of a pour follow each other: each but the last ends at a share, and further on than the one before it. */
function pathFaults({ pour }: RecipeStep): Fault[] {
  const faults: Fault[] = [];
  let reached = 0;
  for (const [index, { toShare, wall }] of (pour?.paths ?? []).entries()) {
    const last = index === pour!.paths!.length - 1;
    const field = `pour.paths.${index}.toShare`;
    if (last && toShare !== undefined)
      faults.push({
        field,
        reason: 'The last part goes to the end of the pour, so it has no share of its own.',
      });
    if (!last && toShare === undefined)
      faults.push({
        field,
        reason: 'Say up to which share of the brew water this part goes; only the last has none.',
      });
    if (toShare !== undefined && toShare <= reached)
      faults.push({
        field,
        reason: `This part ends at ${percent(toShare)}, no further than the part before it.`,
      });
    reached = toShare ?? reached;
    if (!last && wall === 'washed')
      faults.push({
        field: `pour.paths.${index}.wall`,
        reason: 'The wall is washed once, at the end of a pour: by its last part.',
      });
  }
  return faults;
}

function pourFaults(recipe: Recipe): Fault[] {
  const indexed = recipe.steps.map((step, index) => ({ step, index })).filter(({ step }) => step.pour);
  if (indexed.length === 0) return [];
  const { refDoseG, ratio } = recipe;
  const waterG = refDoseG * ratio;
  const faults: Fault[] = [];
  let pouredG = 0;
  const steps = indexed.map(({ step }) => step);
  for (const [place, addsG] of exactAmounts(steps, refDoseG, waterG).entries()) {
    const { index } = indexed[place]!;
    pouredG += addsG;
    if (addsG <= 0)
      faults.push({
        field: `steps.${index}.pour.amount`,
        reason: `This pour adds nothing: ${percent((pouredG - addsG) / waterG)} of the brew water is poured before it.`,
      });
    else if (pouredG > waterG * (1 + REACH_TOLERANCE))
      faults.push({
        field: `steps.${index}.pour.amount`,
        reason: `The pours come to ${percent(pouredG / waterG)} of the brew water here; they must come to 100 % with the last.`,
      });
  }
  const last = indexed.at(-1)!;
  if (faults.length === 0 && pouredG < waterG * (1 - REACH_TOLERANCE))
    faults.push({
      field: `steps.${last.index}.pour.amount`,
      reason: `The pours come to ${percent(pouredG / waterG)} of the brew water; the last must bring it to 100 %.`,
    });
  return faults;
}

const percent = (share: number): string => `${Math.round(share * 1000) / 10} %`;

function holdFaults({ holds, steps }: Recipe): Fault[] {
  const faults: Fault[] = [];
  const placeOf = (id: string) => steps.findIndex((step) => step.id === id);
  for (const [index, hold] of holds.entries()) {
    for (const end of ['from', 'to'] as const) {
      if (placeOf(hold[end]) < 0)
        faults.push({
          field: `holds.${index}.${end}`,
          reason: `There is no step “${hold[end]}”; the steps are ${steps.map(({ id }) => id).join(', ')}.`,
        });
    }
    if (placeOf(hold.to) >= 0 && placeOf(hold.from) > placeOf(hold.to))
      faults.push({
        field: `holds.${index}.to`,
        reason: `The ${hold.tool} is held from “${hold.from}” back to “${hold.to}”; a hold ends at its own or a later step.`,
      });
  }
  if (!holds.some(({ tool }) => tool === 'brewer'))
    faults.push({ field: 'holds', reason: 'Some step must hold the brewer, or two brews could share one.' });
  return faults;
}
