/**
 * The converter's figures, each in words and, where it is worked out, with what to ask why of.
 */
import { RecipeError, brewCard, type BrewCard, type Recipe, type WhyOf } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showTemperature, type Units } from '@even-kettle/core/units';
import { blendFor, boilingPointC, coolingTimeS } from '@even-kettle/core/water';
import type { Bar } from '@even-kettle/core/contract';
import type { Conversion } from './conversion';
import { WORDS } from './words';

/** Where the bar has not said how warm it is, degrees Celsius. */
const USUAL_ROOM_C = 21;

export type Fact = { name: string; value: string; of?: WhyOf };

export function factsOf(
  recipe: Recipe,
  bar: Bar | null,
  units: Units,
  made: Conversion & { ok: true },
): Fact[] {
  const { card, grind, grinder, beansG, perCupG } = made;
  const mass = (g: number) => inWords(showMass(g, units, 'water'));
  const facts: Fact[] = [
    { name: WORDS.ratio, value: `1:${card.ratio.toFixed(1)}`, of: 'ratio' },
    {
      name: card.waterIs === 'in the kettle' ? WORDS.waterAt : WORDS.waterForWaterIs(card.waterIs),
      value: inWords(showTemperature(card.waterC, units, !Number.isInteger(card.waterC))),
      of: 'waterC',
    },
    grind?.ok
      ? { name: grinder!.name, value: `${grind.setting}`, of: 'grindSetting' }
      : { name: WORDS.grind, value: WORDS.of100(card.grindBand) },
    { name: WORDS.beansToWeigh, value: inWords(showMass(beansG, units, 'dose')) },
    {
      name: WORDS.time,
      value: `${showClock(card.brewTimeS)} (${showClock(card.brewWindowS.from)}–${showClock(card.brewWindowS.to)})`,
      of: 'brewTimeS',
    },
    { name: WORDS.hands, value: showClock(card.handsTimeS), of: 'handsTimeS' },
    { name: WORDS.hotWaterReady, value: mass(card.kettleFillG), of: 'kettleFillG' },
  ];
  const boilingC = boilingPointC(made.place.altitudeM);
  const roomC = bar?.roomC ?? USUAL_ROOM_C;
  const perMin = bar?.kettles[0]?.coolingPerMin;
  if (card.waterIs === 'in the kettle' && card.waterC < boilingC - 1) {
    const { hotG } = blendFor(card.brewWaterG, card.waterC, { hotC: boilingC, coldC: roomC });
    facts.push(
      {
        name: WORDS.offTheBoilWait,
        value: showClock(
          coolingTimeS(
            {
              fromC: boilingC,
              roomC,
              massG: card.fills.at(-1)?.g ?? card.kettleFillG,
              ...(perMin ? { perMin } : {}),
            },
            card.waterC,
          ),
        ),
      },
      {
        name: WORDS.orBoilingAndCool,
        value: `${showMass(hotG, units, 'water').figure} + ${mass(card.brewWaterG - Math.round(hotG))}`,
      },
    );
  }
  if (card.bypassG > 0) {
    facts.push(
      {
        name: card.addition === 'ice' ? WORDS.bypassWithIce : WORDS.bypass,
        value: mass(card.bypassG),
        of: 'bypassG',
      },
      { name: WORDS.finalRatio, value: `1:${card.finalRatio.toFixed(1)}`, of: 'finalRatio' },
    );
  }
  if (card.mixedC !== undefined)
    facts.push({
      name: WORDS.bothWatersMixed,
      value: inWords(showTemperature(card.mixedC, units, true)),
      of: 'mixedC',
    });
  if (card.addition === 'milk')
    facts.push({ name: WORDS.drinkWithMilk, value: mass(card.drinkG), of: 'drinkG' });
  if (perCupG.length > 1)
    facts.push({
      name: WORDS.sharedOut,
      value: perCupG.map((g) => showMass(g, units, 'water').figure).join(' + '),
    });
  if (recipe.bed !== 'none') facts.push({ name: WORDS.bed, value: recipe.bed });
  return facts;
}

/** Ice of its own, and how many cups it makes, at the dose that it was written for: a line each, where it says so. */
export function writtenInWords(recipe: Recipe, units: Units): string[] {
  const { iceTimesDose, servings, refDoseG } = recipe;
  if (iceTimesDose === undefined && servings === undefined) return [];
  const { additionG, beverageG } = brewCard(recipe, { doseG: refDoseG });
  const grams = (g: number) => inWords(showMass(g, units, 'water'));
  return [
    ...(iceTimesDose === undefined ? [] : [WORDS.withOwnIce(grams(additionG))]),
    ...(servings === undefined ? [] : [WORDS.makesCups(servings, grams(beverageG / servings))]),
  ];
}

/** A cup that most brewers take, beside the one that was written, ml. */
const OTHER_CUP_ML = 300;

/** What a recipe makes of another cup, in a line; null where it makes none. */
export function otherCupInWords(recipe: Recipe, units: Units): string | null {
  let card: BrewCard;
  try {
    card = brewCard(recipe, { cupMl: OTHER_CUP_ML });
  } catch (error) {
    if (error instanceof RecipeError) return null;
    throw error;
  }
  const targets = card.steps.flatMap(({ targetG }) =>
    targetG === undefined ? [] : [inWords(showMass(targetG, units, 'water'))],
  );
  return WORDS.forAnotherCup(OTHER_CUP_ML, inWords(showMass(card.doseG, units, 'dose')), targets.join(', '));
}
