/**
 * How a station is got ready: the second filling of a kettle that is too small for all of a brew's water, the order that
 * brews of the log had, and how long what is ready may wait for its water.
 */
import type { BrewCard } from './card';
import type { CardStep } from './lay-out';
import type { RecipeStep } from './recipe';

export const REFILL: RecipeStep = {
  id: 'refill',
  kind: 'fill',
  name: 'Fill the kettle again',
  phase: 'prep',
  attended: true,
  start: { afterS: 0 },
  lasts: { s: 12 },
  end: { by: 'cue', cue: 'filled and heating' },
};
export const REHEAT: RecipeStep = {
  id: 'reheat',
  kind: 'heat',
  name: 'Water heating again',
  phase: 'prep',
  attended: false,
  start: { afterS: 0 },
  lasts: 'heating',
  end: { by: 'clock' },
};

/** With a second filling as soon as the first is used up; as they are where nothing is rinsed or warmed. */
export function withRefill(steps: readonly RecipeStep[]): readonly RecipeStep[] {
  const rinsed = steps.findIndex(({ kind }) => kind === 'set-filter');
  const hasHeating = steps.slice(0, rinsed + 1).some(({ lasts }) => lasts === 'heating');
  if (!hasHeating || steps.some(({ id }) => id === REFILL.id || id === REHEAT.id)) return steps;
  return [...steps.slice(0, rinsed + 1), REFILL, REHEAT, ...steps.slice(rinsed + 1)];
}

/** Grams that a filling of the kettle is filled to. */
export function fillOf({ id }: Pick<CardStep, 'id'>, { fills, kettleFillG, steps }: BrewCard): number {
  const twice = steps.some((step) => step.id === REFILL.id);
  return (twice && id !== REFILL.id ? fills[0] : fills.at(-1))?.g ?? kettleFillG;
}

const isBeans = ({ kind }: RecipeStep): boolean => kind === 'weigh' || kind === 'grind';
const WARM: RecipeStep = {
  id: 'warm',
  kind: 'warm',
  name: 'Warming through',
  phase: 'prep',
  attended: false,
  start: { afterS: 0 },
  lasts: { s: 15 },
  end: { by: 'clock' },
};

/** As stations were got ready until filters were rinsed before the beans are weighed: beans, rinse, warming through. */
export function beansBeforeRinsing(steps: readonly RecipeStep[]): readonly RecipeStep[] {
  const rinsed = steps.findIndex(({ kind }) => kind === 'set-filter');
  const weighed = steps.findIndex(({ kind }) => kind === 'weigh');
  if (rinsed < 0 || weighed < rinsed || !steps.some(({ lasts }) => lasts === 'heating')) return steps;
  const rest = steps.slice(rinsed + 1).filter((step) => !isBeans(step));
  return [
    ...steps.slice(0, rinsed),
    ...steps.filter(isBeans),
    steps[rinsed]!,
    ...(rest.some(({ id }) => id === WARM.id) ? [] : [WARM]),
    ...rest,
  ];
}

/** Ground coffee waits for its water no longer, seconds. */
const GROUND_FOR_S = 120;
/** However long the work between takes, a step keeps this much room, seconds. */
const LEAST_ROOM_S = 5;

/**
 * Draws in the windows of what comes between the grinder and the first water, each by the same share, until the
 * coffee waits no longer than it may.
 */
export function boundWaits(steps: readonly CardStep[]): void {
  const ground = steps.findLastIndex(({ kind }) => kind === 'grind');
  const wetted = steps.findIndex(
    ({ kind, anchor }, n) => n > ground && (anchor !== undefined || kind === 'pour' || kind === 'flame'),
  );
  if (ground < 0 || wetted < 0) return;
  const between = steps.slice(ground + 1, wetted + 1);
  const surelyS = steps[wetted]!.startS - steps[ground]!.endS;
  const roomOf = ({ lag }: CardStep) => (lag.maxS === null ? 0 : lag.maxS - lag.idealS);
  const roomS = between.reduce((sum, step) => sum + roomOf(step), 0);
  const share = (GROUND_FOR_S - surelyS) / roomS;
  if (roomS === 0 || share >= 1) return;
  for (const step of between) {
    const least = Math.min(LEAST_ROOM_S, roomOf(step));
    if (step.lag.maxS !== null)
      step.lag.maxS = step.lag.idealS + Math.max(least, Math.floor(share * roomOf(step)));
  }
}
