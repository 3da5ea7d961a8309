/**
 * What the card says of grinding: which grinder at which setting, or how it should feel; and what more to weigh when the
 * grinder has held another coffee.
 */
import type { BarState } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { grindOffsetFor, type AgendaItem } from '@even-kettle/core/plan';
import { beansToWeighG, feelOfBand, grindSetting, type Grinder } from '@even-kettle/core/recipe';

export type Ground = {
  /** "Grinder 2: 15.7", or the feel of it. */
  setting: string;
  /** Beans to weigh, grams, and why it is more than the dose; null where it is the dose. */
  weighG: number;
  more: { purgeG: number; keepsG: number; after: string } | null;
};

const USUAL_KEEPS_G = 0.6;
const USUAL_PURGE_G = 2;

/** Of the step's brew, by the bench's first grinder, as the record will have it. */
export function groundFor(
  { card, cup, brewId }: Pick<AgendaItem, 'card' | 'cup' | 'brewId'>,
  bar: Bar,
  state: BarState,
): Ground {
  const [grinder] = bar.grinders;
  const coffee = bar.coffees.find(({ name }) => name === cup.coffee);
  const found =
    grinder &&
    grindSetting(grinder, card.grindBand, grindOffsetFor(coffee, cup.recipeId, grinder.id, cup.sample));
  const setting =
    grinder && found?.ok
      ? `${grinder.name}: ${found.setting}`
      : `${grinder?.name ?? 'Grind'}: ${feelOfBand(card.grindBand)}`;
  const before = coffeeBefore(state, brewId);
  const changed = before !== null && before !== cup.coffee;
  return {
    setting,
    weighG: beansToWeighG(card.doseG, grinder, changed),
    more: changed ? { ...takenBy(grinder), after: before } : null,
  };
}

const takenBy = (grinder: Grinder | undefined) => ({
  purgeG: grinder?.purgeG ?? USUAL_PURGE_G,
  keepsG: grinder?.keepsG ?? USUAL_KEEPS_G,
});

/** The coffee that was ground last before a brew's own; null where nothing is known of it. */
function coffeeBefore({ brews }: BarState, brewId: string): string | null {
  const ground = Object.values(brews).flatMap((brew) => {
    const weigh = brew.planned.steps.find(({ kind }) => kind === 'weigh');
    const atMs = weigh && brew.marks[weigh.id]?.doneMs;
    return brew.id === brewId || atMs === undefined ? [] : [{ atMs, coffee: brew.ask.coffee }];
  });
  const ownMs = brews[brewId]?.startedMs ?? Infinity;
  const earlier = ground.filter(({ atMs }) => atMs <= ownMs || ownMs === Infinity);
  return earlier.sort((a, b) => b.atMs - a.atMs)[0]?.coffee ?? null;
}
