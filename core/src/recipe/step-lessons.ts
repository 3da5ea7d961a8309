/**
 * Why a step is done, how, and the commonest mistake: by what the step is for in its method, by its filter, and by its school.
 */
import type { BrewCard } from './card';
import type { CardStep } from './lay-out';
import { LESSONS, METHODS, SCHOOLS } from './methods';
import type { FilterKind, LessonKey, StepLesson } from './methods/lessons';
import type { BedPreparation } from './recipe';
import { roleOf } from './role';

export type { StepLesson } from './methods/lessons';

/** A first pour of less than this, times the dose, with more to come is a bloom. */
const BLOOM_TIMES = 4;

/** Why the bed is laid as the recipe says, after why it is loaded. */
const BED_WHY: Partial<Record<BedPreparation, string>> = {
  level: 'On a level bed every ground gets the same water.',
  'shallow well':
    'A shallow well leads the first water to the middle, so that it reaches the bottom before it spreads.',
  'deep well': 'A deep well leads the first water to the bottom of a dense or gassy bed.',
};

/** The lesson of a step; null where there is nothing to teach (its method has no such step of its own). */
export function stepLessonOf(step: CardStep, card: BrewCard): StepLesson | null {
  const key = lessonKeyOf(step, card);
  const lesson = lessonFor(key, card);
  if (!lesson) return null;
  // Nobody looks at a card while it grinds: the grinder is set as the beans are weighed.
  const grind = key === 'weigh' ? lessonFor('grind', card)?.why : undefined;
  const bed =
    key === 'load' && METHODS[card.method].drawdownExponent !== null ? BED_WHY[card.bed] : undefined;
  return {
    ...lesson,
    why: [lesson.why, bed, grind].filter(Boolean).join(' '),
    // What a person's own recipe names goes before what is common.
    ...(step.mistake && (!lesson.mistake || !isShipped(card)) ? { mistake: step.mistake } : {}),
  };
}

function lessonFor(key: LessonKey, { method, recipeId, filter }: BrewCard): StepLesson | undefined {
  const { lessons, schools } = LESSONS[method];
  const kind = filterKindOf(filter);
  return schools?.[recipeId]?.[key] ?? (kind && lessons[`${key}/${kind}`]) ?? lessons[key];
}

const isShipped = ({ recipeId }: BrewCard): boolean => SCHOOLS.some(({ id }) => id === recipeId);

function filterKindOf(filter: string): FilterKind | null {
  const [found] = /paper|cloth|metal/.exec(filter) ?? [];
  return (found as FilterKind | undefined) ?? null;
}

/** What a step is for, from its kind and its place in the brew: a recipe that people wrote has names and ids of its own. */
export function lessonKeyOf(step: CardStep, card: BrewCard): LessonKey {
  const role = roleOf(card.method, step);
  switch (step.kind) {
    case 'pour':
      return pourKey(step, card);
    case 'stir':
      return stirKey(step, card);
    case 'swirl':
      return /\btap\b/i.test(step.name)
        ? 'tap-level'
        : isBeforeLastPour(step, card)
          ? 'swirl-bloom'
          : 'swirl-end';
    case 'flame':
      return role === 'light'
        ? 'light'
        : step.checkC || isFollowedBy(step, card, 'watch')
          ? 'lower'
          : 'flame-off';
    case 'watch':
      return watchKey(step, card);
    case 'settle':
      return settleKey(step, card);
    case 'warm':
      return step.attended ? 'warm-cup' : 'warm-through';
    case 'decant':
      return isFoamed(card) ? 'share-foam' : METHODS[card.method].pressedBy ? 'decant' : 'filter-off';
    case 'seal':
    case 'set-filter':
    case 'fill':
    case 'heat':
    case 'weigh':
    case 'grind':
    case 'load':
    case 'bypass':
    case 'dip':
    case 'plunge':
    case 'press':
    case 'drawdown':
    case 'serve':
    case 'cool':
    case 'clean':
      return step.kind;
  }
}

/** Boiled up in its pot with its grounds, under a foam. */
const isFoamed = ({ method }: BrewCard): boolean =>
  METHODS[method].heatedIn === 'pot' && METHODS[method].isImmersion;

const poursOf = ({ steps }: BrewCard) => steps.filter(({ kind }) => kind === 'pour');
const placeOf = (step: CardStep, { steps }: BrewCard) => steps.findIndex(({ id }) => id === step.id);

const isBeforeLastPour = (step: CardStep, card: BrewCard): boolean =>
  placeOf(step, card) < card.steps.findLastIndex(({ kind }) => kind === 'pour');

const isFollowedBy = (step: CardStep, card: BrewCard, kind: CardStep['kind']): boolean =>
  card.steps[placeOf(step, card) + 1]?.kind === kind;

function pourKey(step: CardStep, card: BrewCard): LessonKey {
  if (METHODS[card.method].steeps) return 'all-water';
  const pours = poursOf(card);
  if (pours.length === 1) return 'one-pour';
  const isBloom = pours[0]!.id === step.id && (step.pourG ?? 0) < BLOOM_TIMES * card.doseG;
  if (!isBloom) return 'pour';
  return step.waterC === undefined ? 'bloom' : 'cool-bloom';
}

function stirKey(step: CardStep, card: BrewCard): LessonKey {
  const method = METHODS[card.method];
  if (method.heatedIn === 'globe') return 'coffee-in';
  if (method.steeps) return /\bpush\b/i.test(step.name) ? 'wet' : 'stir';
  if (isBeforeLastPour(step, card)) return 'stir-bloom';
  return /\bdeep\b/i.test(step.name) ? 'deep-stir' : 'stir-end';
}

function watchKey(step: CardStep, card: BrewCard): LessonKey {
  if (isFoamed(card)) return 'foam';
  if (METHODS[card.method].heatedIn === 'pot')
    return card.steps.find(({ kind }) => kind === 'watch')!.id === step.id ? 'first-flow' : 'stream';
  if (METHODS[card.method].heatedIn !== 'globe') return 'settle-bloom';
  const sealAt = card.steps.findIndex(({ kind }) => kind === 'seal');
  return sealAt > placeOf(step, card) ? 'near-boiling' : 'rise';
}

function settleKey(step: CardStep, card: BrewCard): LessonKey {
  if (roleOf(card.method, step) === 'draw-down') return 'draw-down';
  if (isFoamed(card)) return step.phase === 'brew' ? 'warming' : 'settle-grounds';
  const dipAt = card.steps.findIndex(({ kind }) => kind === 'dip');
  return dipAt >= 0 && dipAt < placeOf(step, card) ? 'sink' : 'steep';
}
