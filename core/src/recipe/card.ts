/**
 * The brew card: one recipe converted to one cup, with every target, time and window exact. It is what the bar
 * brews from, what the planner plans and what the log compares with.
 */
import {
  CUP_WARMING_G,
  ICED_C,
  blendedC,
  boilingPointC,
  fillsOf,
  fillsOfBefore,
  heatingTimeS,
  kettleFillG,
  kettleLimitG,
  type Fill,
  type Fills,
  type HotWater,
  type Kettle,
} from '../water';
import { cardRules, type CardRules } from './card-version';
import type { Brewer } from './methods/brewer';
import { heatLeftS, layOut, type Batch, type CardStep, type Timeline } from './lay-out';
import { METHODS } from './methods';
import { pourAmounts } from './pours';
import { REFILL, beansBeforeRinsing, withRefill } from './prep';
import type { BedPreparation, Hold, MethodId, Recipe, RecipeStep, WaterMeaning } from './recipe';
import { splitAtRim } from './split-pours';
import { round } from './round';
import { COOL_C, roastCaution } from './caution';
import {
  RATIO_RANGE,
  askedOf,
  beveragePerDose,
  solve,
  yieldOf,
  type Addition,
  type Ask,
  type Yield,
} from './solve';
import { gassyNote, underCircumstances } from './variants';
import { brewTemperature, temperatureNote, type RoastLevel } from './temperature';

/** Where and with what the cup is brewed. */
export type BrewSite = {
  altitudeM: number;
  roast: RoastLevel;
  kettle: Kettle;
  /** The brewer that it is brewed in, where it is known: a pour that would spill is then split. */
  brewer?: Brewer;
  /** Nothing weighs under the brewer: pours end by clock and eye, and the water is weighed beforehand. */
  withoutScale?: true;
  /** The brewer is held in the hand, which keeps the hands through the drawdown. */
  handHeld?: true;
  /** Retention that the bar has learnt for this recipe, g/g. */
  retentionGPerG?: number;
  /** The bar's own power with which drawdown grows with the dose, where its log has shown one. */
  drawdownExponent?: number;
  /** How far off that power may be (standard deviation): cups of other sizes get a wider window for it. */
  drawdownExponentSd?: number;
  /** Roasted less than four days ago, so that it still holds much gas. */
  gassy?: true;
  /** The cup stands under the brewer in place of a server, where one cup is made. */
  intoCup?: true;
  /** Its beans stand weighed in a tin. */
  fromTin?: true;
  /** The version of the rules that the card is made by, where it is not today's (`CARD_VERSION`). */
  cardVersion?: number;
  /** Who set altitude and kettle; left out, they are the usual ones. */
  setBy?: 'bar' | 'asked';
};

/** Sea level, medium roast, a 1,200 W kettle filled from a 90 C boiler tap. */
export const DEFAULT_PLACE: BrewSite = {
  altitudeM: 0,
  roast: 'medium',
  kettle: { powerW: 1200, filledAtC: 90 },
};

/** So many bands finer over ice. */
const ICED_FINER_BANDS = 4;

export type BrewCard = {
  recipeId: string;
  recipeVersion: number;
  method: MethodId;
  doseG: number;
  brewWaterG: number;
  /** Water beside the bed, ice included, grams. */
  bypassG: number;
  /** What ends in the server: brewWaterG + bypassG = beverageG + retainedG + lossG, exactly. */
  beverageG: number;
  retainedG: number;
  lossG: number;
  addition?: Addition;
  /** Ice (within the bypass) or milk, grams. */
  additionG: number;
  /** The beverage and the milk in it, grams. */
  drinkG: number;
  /** The beverage by cups, whole grams that sum to it. One cup: one entry. */
  perCupG: number[];
  ratio: number;
  finalRatio: number;
  grindBand: number;
  /** How warm it is handed over, degrees Celsius: cold over ice, else as it comes from its brewer. */
  servedC: number;
  waterC: number;
  waterIs: WaterMeaning;
  /** True mean temperature of waters of more than one temperature, degrees Celsius. */
  mixedC?: number;
  bed: BedPreparation;
  filter: string;
  /** Hot water to have ready: brew, rinse or warming, the cup, a tenth to spare, grams. */
  kettleFillG: number;
  /** How the kettle is filled for it, never over its limit; empty where the brew takes its water otherwise. */
  fills: Fill[];
  /** The kettle has no room for the rinse, and the tap is hot enough for it. */
  isRinsedFromTap?: true;
  /** From the timer's anchor to the end mark: expected, and the window in which it should fall, seconds. */
  brewTimeS: number;
  brewWindowS: { from: number; to: number };
  /** The power of the dose with which its drawdown grows; 0 where nothing drains through a bed. */
  drawdownExponent: number;
  /** Seconds in which the brew has a pair of hands, from prep to cleaning. */
  handsTimeS: number;
  steps: CardStep[];
  holds: Hold[];
  notes: string[];
};

/**
 * Converts a recipe to what is asked for.
 * @throws RecipeError `not-a-quantity` or `out-of-range` with the field, where the ask makes no cup
 */
export const brewCard = (own: Recipe, ask: Ask, place: BrewSite = DEFAULT_PLACE): BrewCard =>
  cardOf(own, askedOf(own, ask), place);

function cardOf(own: Recipe, ask: Ask, place: BrewSite): BrewCard {
  const recipe = asBrewed(own, ask, place);
  const rules = cardRules(place.cardVersion);
  const each = yieldOf(recipe, ask, retentionAt(place), rules.iceByShare);
  const { doseG, brewWaterG, cups } = solve(ask, each);
  const temperature = brewTemperature(recipe, place.roast, place.altitudeM);
  const { waterC, highestC } = temperature;
  const water = watersOf(doseG, brewWaterG, each);
  const pours = pourAmounts(recipe, doseG, brewWaterG);
  const hot: HotWater = {
    hotG: hotWaterG(recipe, pours, brewWaterG) + water.bypassG - water.iceG,
    rinseG: METHODS[recipe.method].rinseG,
    cupG: isUnwarmed(ask, place) && !rules.fillsTwice ? 0 : CUP_WARMING_G,
  };
  const filled = fillsIn(recipe, place, hot, waterC);
  const { fills, isRinsedFromTap } = filled;
  const fillG = kettleFillG(hot);
  const heatsG = rules.beansFirst ? [fills.at(-1)?.g ?? fillG] : [fills[0]?.g ?? fillG, fills[1]?.g ?? 0];
  const { timeline, notes } = layOutIn(recipe, place, {
    doseG,
    brewWaterG,
    waterC,
    heatsG,
    isRinsedFromTap,
    keepsG: rules.rimOverBed ? 0 : each.retentionGPerG * doseG,
  });
  const movedC = round(waterC - recipe.waterC, 1);
  const mixedC = mixtureC(timeline.steps, waterC);
  const found =
    movedC === 0 ? timeline.steps : timeline.steps.map((step) => checkedAt(step, movedC, highestC));
  const steps = place.withoutScale || place.handHeld ? found.map((step) => byHandAndEye(step, place)) : found;
  return {
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    method: recipe.method,
    doseG,
    brewWaterG,
    bypassG: water.bypassG,
    beverageG: water.beverageG,
    retainedG: brewWaterG + water.bypassG - water.beverageG - each.lossG,
    lossG: each.lossG,
    ...(ask.addition ? { addition: ask.addition } : {}),
    additionG: water.iceG + water.milkG,
    drinkG: water.beverageG + water.milkG,
    perCupG: equalShares(water.beverageG, cups),
    ratio: round(brewWaterG / doseG, 2),
    finalRatio: round((brewWaterG + water.bypassG) / doseG, 2),
    // Less water passes, so it is ground finer.
    grindBand: Math.min(
      100,
      recipe.grindBand + (isIcedByOrder(recipe, ask) && !rules.iceByShare ? ICED_FINER_BANDS : 0),
    ),
    servedC: ask.addition === 'ice' ? ICED_C : METHODS[recipe.method].meetsIceC,
    waterC,
    waterIs: recipe.waterIs,
    ...(mixedC === null ? {} : { mixedC }),
    bed: recipe.bed,
    filter: place.brewer?.filter ?? recipe.filter,
    kettleFillG: fillG,
    fills,
    ...(isRinsedFromTap ? { isRinsedFromTap } : {}),
    brewTimeS: timeline.brewTimeS,
    brewWindowS: timeline.brewWindowS,
    drawdownExponent: exponentOf(recipe, place),
    handsTimeS: steps.reduce((sum, step) => sum + (step.attended ? step.durationS : 0), 0),
    steps,
    holds: recipe.holds,
    notes: [
      place.gassy ? gassyNote(own) : null,
      roastCaution(recipe, place.roast),
      temperatureNote(temperature, place.altitudeM),
      ...notes,
      kettleNote(filled, hot, rules),
      additionNote(recipe, ask.addition, water, each),
      place.withoutScale && METHODS[recipe.method].heatedIn === 'kettle'
        ? 'Nothing weighs under the brewer: the water is weighed into the kettle, and pours end by clock and eye.'
        : null,
      cups > 1 ? 'Swirl the server before sharing out: what is below is stronger.' : null,
    ].filter((note) => note !== null),
  };
}

/** A recipe with ice of its own is ground for it as it says. */
const isIcedByOrder = ({ iceTimesDose }: Recipe, { addition }: Ask): boolean =>
  addition === 'ice' && iceTimesDose === undefined;

/** Nobody warms the cup: it is served cold, or a hand holds the brewer through its drawdown. */
export const isUnwarmed = ({ addition }: Ask, { handHeld }: BrewSite): boolean =>
  addition === 'ice' || (handHeld ?? false);

/** The recipe as this cup is brewed by it here: a very fresh coffee's, a cold cup's, one that brews straight into its cup. */
export function asBrewed(recipe: Recipe, ask: Ask, place: BrewSite): Recipe {
  const { gassy, intoCup, fromTin } = place;
  const one = !('cups' in ask) || ask.cups === 1;
  const iced = ask.addition === 'ice';
  const serves = METHODS[recipe.method].iceIn === 'the server';
  return underCircumstances(recipe, {
    gassy: gassy ?? false,
    coldCup: isUnwarmed(ask, place),
    intoCup: (intoCup ?? false) && one && !iced && serves,
    fromTin: fromTin ?? false,
  });
}

type Waters = { bypassG: number; beverageG: number; iceG: number; milkG: number };

function watersOf(doseG: number, brewWaterG: number, each: Yield): Waters {
  const addedG = each.whole === each.ratio ? 0 : Math.round(round(each.whole * doseG, 6)) - brewWaterG;
  const iceG = each.ice > 0 ? addedG : 0;
  const bypassG = Math.round(each.bypass * doseG) + iceG;
  const beverageG = Math.round(round(brewWaterG - each.retentionGPerG * doseG - each.lossG + bypassG, 6));
  return { bypassG, beverageG, iceG, milkG: each.milk > 0 ? addedG : 0 };
}

/** What a gram keeps: as the log has taught it, else as the brewer says; undefined where the recipe or its method knows. */
export const retentionAt = ({ retentionGPerG, brewer }: BrewSite): number | undefined =>
  retentionGPerG ?? brewer?.retentionGPerG;

/** The bar's own where its log has shown one, else the method's. */
const exponentOf = (recipe: Recipe, { drawdownExponent }: BrewSite): number =>
  drawdownExponent ?? METHODS[recipe.method].drawdownExponent ?? 0;

/** What is brewed, and how its kettle is filled, grams. */
type InKettle = {
  doseG: number;
  brewWaterG: number;
  waterC: number;
  /** The first filling, and the second. */
  heatsG: readonly number[];
  isRinsedFromTap: boolean;
  /** What the bed keeps under the brewer's rim. */
  keepsG: number;
};

function layOutIn(
  recipe: Recipe,
  place: BrewSite,
  { doseG, brewWaterG, waterC, heatsG, isRinsedFromTap, keepsG }: InKettle,
): { timeline: Timeline; notes: string[] } {
  const { kettle, brewer } = place;
  const [firstG = 0, secondG = 0] = heatsG;
  const steps = stepsIn(recipe, place, secondG > 0);
  const leftS = (fillAt: number, massG: number) =>
    massG === 0 ? 0 : heatLeftS(steps, fillAt, doseG, heatingTimeS(massG, waterC, kettle), isRinsedFromTap);
  const batch: Batch = {
    doseG,
    brewWaterG,
    pours: pourAmounts(recipe, doseG, brewWaterG),
    heatLeftS: leftS(
      steps.findIndex(({ kind }) => kind === 'fill'),
      firstG,
    ),
    reheatLeftS: leftS(
      steps.findIndex(({ id }) => id === REFILL.id),
      secondG,
    ),
    filledAtC: kettle.filledAtC,
    boilsAtC: cardRules(place.cardVersion).boilsAt100 ? 100 : round(boilingPointC(place.altitudeM), 1),
    maxFlowGPerS: kettle.maxFlowGPerS ?? Infinity,
    drawdownExponent: exponentOf(recipe, place),
    drawdownExponentSd: place.drawdownExponentSd ?? 0,
    drainShare: brewer?.drainShare ?? 1,
  };
  const slow = flowNote(recipe, batch.maxFlowGPerS);
  const whole = steps === recipe.steps ? layOutOnce(recipe, batch) : layOut(recipe, batch, steps);
  const split = brewer && splitAtRim(steps, batch.pours, whole, brewer, doseG, keepsG);
  if (!split) return { timeline: whole, notes: [...slow, ...whole.notes] };
  const timeline = layOut(recipe, { ...batch, pours: split.pours }, split.steps);
  return { timeline, notes: [...slow, ...split.notes, ...timeline.notes] };
}

function stepsIn(recipe: Recipe, { cardVersion }: BrewSite, filledTwice: boolean): readonly RecipeStep[] {
  if (cardRules(cardVersion).beansFirst) return beansBeforeRinsing(recipe.steps);
  return filledTwice ? withRefill(recipe.steps) : recipe.steps;
}

/**
 * The same batch at another roast or altitude is laid out the same but for the kettle's heating; so the latest layout of
 * a recipe is kept. Neither recipes nor timelines are ever changed.
 */
function layOutOnce(recipe: Recipe, batch: Batch): Timeline {
  const { doseG, brewWaterG, heatLeftS: heatS, filledAtC, maxFlowGPerS, drawdownExponent } = batch;
  const known = latest.get(recipe);
  const same =
    known &&
    known.doseG === doseG &&
    known.brewWaterG === brewWaterG &&
    known.heatLeftS === heatS &&
    known.filledAtC === filledAtC &&
    known.boilsAtC === batch.boilsAtC &&
    known.maxFlowGPerS === maxFlowGPerS &&
    known.drawdownExponent === drawdownExponent &&
    known.drawdownExponentSd === batch.drawdownExponentSd &&
    known.drainShare === batch.drainShare;
  if (same) return known.timeline;
  const timeline = layOut(recipe, batch);
  latest.set(recipe, { ...batch, timeline });
  return timeline;
}
const latest = new WeakMap<Recipe, Batch & { timeline: Timeline }>();

function flowNote(recipe: Recipe, maxFlowGPerS: number): string[] {
  const fastest = Math.max(0, ...recipe.steps.map((step) => step.pour?.flowGPerS ?? 0));
  return fastest > maxFlowGPerS
    ? [
        `The recipe pours at ${fastest} g a second; this kettle gives ${maxFlowGPerS}, so its pours take longer.`,
      ]
    : [];
}

/** How a kettle is filled for a brew that pours from one. */
function fillsIn(recipe: Recipe, { kettle, cardVersion }: BrewSite, hot: HotWater, waterC: number): Fills {
  const { sizeMl, filledAtC } = kettle;
  const method = METHODS[recipe.method];
  if (method.heatedIn !== 'kettle') return { fills: [], shortG: 0, isRinsedFromTap: false };
  const gentle = method.drawdownExponent !== null;
  const limitG = sizeMl ? kettleLimitG(sizeMl, Math.min(100, waterC), gentle) : Infinity;
  return cardRules(cardVersion).fillsTwice
    ? fillsOfBefore(hot, waterC, limitG)
    : fillsOf(hot, waterC, limitG, filledAtC);
}

function kettleNote(
  { fills, shortG, isRinsedFromTap }: Fills,
  hot: HotWater,
  { fillsTwice }: CardRules,
): string | null {
  const [first, second] = fills;
  const most = fills.at(-1)?.g;
  if (shortG > 0)
    return `The kettle takes ${most} g at the most, ${shortG} g less than this brew pours: take a larger kettle, or make a smaller cup.`;
  const twice = `${first?.g} g to rinse and warm with, then ${second?.g} g to brew with.`;
  if (fillsTwice) return second ? `The kettle is filled twice: ${twice}` : null;
  const why = `All of it with something to spare is ${kettleFillG(hot)} g, and the kettle takes less`;
  if (isRinsedFromTap) return `${why}: rinse with hot water from the tap.`;
  return second ? `${why}, so it is filled twice: ${twice}` : null;
}

function additionNote(
  { method, ratio, bypassTimesDose, iceTimesDose }: Recipe,
  addition: Addition | undefined,
  { iceG, milkG }: Waters,
  each: Yield,
): string | null {
  if (addition === 'ice') {
    const where = METHODS[method].iceIn;
    const how =
      where === 'the server' ? 'into the server' : 'into a second vessel, to pour it over when it is done';
    if (iceTimesDose !== undefined) return `${iceG} g of ice, which are the recipe’s own, ${how}.`;
    const own = ratio - each.retentionGPerG + bypassTimesDose;
    const weaker = Math.round(100 * (1 - own / beveragePerDose(each)));
    const strength =
      weaker > 1
        ? `The brew cannot be stronger than 1:${RATIO_RANGE.min}, so the drink is about ${weaker} % weaker than the recipe's own.`
        : 'It melts, and the drink is as strong as the recipe’s own.';
    return `${iceG} g of ice ${how}. ${strength} Ice for the glass, about 60 g, comes on top.`;
  }
  if (addition === 'milk')
    return `${milkG} g of milk on top; the brew is a tenth stronger for it. Milk is an allergen: kept apart.`;
  if (addition === 'sugar')
    return 'Sugar is served beside; into the long-handled pot it goes before brewing.';
  return null;
}

/** The brew water that comes hot: without pours that have a cooler water of their own. */
const hotWaterG = (recipe: Recipe, pours: ReturnType<typeof pourAmounts>, brewWaterG: number): number =>
  startsCool(recipe)
    ? 0
    : brewWaterG -
      recipe.steps.reduce(
        (sum, { id, pour }) => sum + (pour?.waterC === undefined ? 0 : (pours.get(id)?.pourG ?? 0)),
        0,
      );

export const startsCool = ({ waterIs, waterC }: Pick<Recipe, 'waterIs' | 'waterC'>): boolean =>
  waterIs === 'to start with' && waterC < COOL_C;

function mixtureC(steps: readonly CardStep[], waterC: number): number | null {
  const pours = steps.filter((step) => step.pourG !== undefined);
  if (pours.every((step) => step.waterC === undefined)) return null;
  return round(blendedC(pours.map((step) => ({ massG: step.pourG!, atC: step.waterC ?? waterC }))), 1);
}

function checkedAt(step: CardStep, movedC: number, highestC: number): CardStep {
  if (!step.checkC) return step;
  const to = Math.min(highestC, round(step.checkC.to + movedC, 1));
  return { ...step, checkC: { from: Math.min(to, round(step.checkC.from + movedC, 1)), to } };
}

/** Craft, "without a scale under the brewer". */
function byHandAndEye(step: CardStep, { withoutScale, handHeld }: BrewSite): CardStep {
  if (withoutScale && step.kind === 'pour') return { ...step, byEye: true };
  if (!handHeld || step.kind !== 'drawdown') return step;
  return {
    ...step,
    attended: true,
    lag: { minS: 0, idealS: 0, maxS: 0, penalty: 0 },
    hint: 'Held until it drips.',
  };
}

/** Whole grams that sum to a mass, as equal as can be. */
export function equalShares(massG: number, parts: number): number[] {
  return Array.from(
    { length: parts },
    (_, index) => Math.floor((massG * (index + 1)) / parts) - Math.floor((massG * index) / parts),
  );
}
