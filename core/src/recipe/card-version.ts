/**
 * The rules by which cards are computed have a version. A brew keeps the number of those that made its card, so that what was
 * brewed, and what is being brewed while a bar is upgraded, stays as it was. Whoever changes what a card says of a cup raises
 * the number, and keeps the rule of before under its own (docs/decisions).
 */

/** Today's. */
export const CARD_VERSION = 3;

export type CardRules = {
  /** Beans are weighed before the filter is rinsed, and a kettle is filled once. */
  beansFirst: boolean;
  /** Ice takes a fifth of the ratio, and nothing is ground finer for it. */
  iceByShare: boolean;
  /** A kettle that is too small is filled twice, and holds warming water for every cup. */
  fillsTwice: boolean;
  /** Water boils at 100 °C under every siphon and pot. */
  boilsAt100: boolean;
  /** What the bed keeps takes no room under the rim. */
  rimOverBed: boolean;
};

/** @param version left out, today's */
export const cardRules = (version: number = CARD_VERSION): CardRules => ({
  beansFirst: version < 2,
  iceByShare: version < 2,
  fillsTwice: version < 3,
  boilsAt100: version < 3,
  rimOverBed: version < 3,
});
