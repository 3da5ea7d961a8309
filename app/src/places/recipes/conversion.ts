/**
 * From what is typed to a card: the converter's reasoning, without its looks.
 */
import type { Bar, Coffee } from '@even-kettle/core/contract';
import { isGassy } from '@even-kettle/core/learn';
import { allBrewers, brewersOn, grindOffsetFor, learntBed, placeOf, tuningFor } from '@even-kettle/core/plan';
import {
  DEFAULT_PLACE,
  RATIO_RANGE,
  RecipeError,
  beansToWeighG,
  brewCard,
  capacityOf,
  equalShares,
  fitsBrewer,
  grindSetting,
  type Ask,
  type Brewer,
  type BrewCard,
  type Capacity,
  type Grinder,
  type BrewSite,
  type Recipe,
  tuned,
} from '@even-kettle/core/recipe';
import { readMass, readVolume, type Read, type Units } from '@even-kettle/core/units';
import { ALTITUDE_RANGE_M } from '@even-kettle/core/water';
import type { ConverterInput } from './asked';
import { DECIMAL, readTyped } from '../../ui/typed';
import { WORDS } from './words';

/** What the cup is made of and with, whether it can be made or not. */
export type With = {
  coffee: Coffee | undefined;
  grinder: Grinder | undefined;
  offsetSteps: number;
  place: BrewSite;
  /** Brewers of the recipe's method: those on the bench first. */
  brewers: { brewer: Brewer; onBench: boolean }[];
};

export type Conversion = With &
  (
    | {
        ok: true;
        ask: Ask;
        card: BrewCard;
        brewer: Brewer;
        capacity: Capacity;
        perCupG: number[];
        beansG: number;
        grind: ReturnType<typeof grindSetting> | null;
      }
    | { ok: false; field: string; reason: string }
  );

/**
 * @param bar null while it has not come: the usual place then stands in for it
 * @param nowMs for the age of the coffee, bar milliseconds; left out, it is taken to have rested
 */
export function convert(
  of: Recipe,
  asked: ConverterInput,
  bar: Bar | null,
  units: Units,
  nowMs?: number,
): Conversion {
  const coffee = bar?.coffees.find(({ id }) => id === asked.coffeeId) ?? bar?.coffees[0];
  const grinder = bar?.grinders.find(({ id }) => id === asked.grinderId) ?? bar?.grinders[0];
  // As this coffee is brewed by it.
  const recipe = tuned(of, tuningFor(coffee, of.id));
  const offsetSteps = grinder ? grindOffsetFor(coffee, of.id, grinder.id) : 0;
  const roast = asked.roast ?? coffee?.roast ?? 'medium';
  const here: BrewSite = {
    ...(bar ? placeOf(bar, roast) : { ...DEFAULT_PLACE, roast }),
    ...(coffee ? learntBed(bar?.beds, recipe.id, coffee.name) : {}),
    ...(coffee && nowMs !== undefined && isGassy(coffee.roastedOn, nowMs) ? { gassy: true } : {}),
  };
  const brewers = brewersFor(recipe, bar);
  const made: With = { coffee, grinder, offsetSteps, place: here, brewers };
  const altitude = readAltitude(asked.altitude);
  if (!altitude.ok) return { ...made, ok: false, field: 'altitude', reason: altitude.reason };
  const place: BrewSite =
    altitude.value === null ? here : { ...here, altitudeM: altitude.value, setBy: 'asked' };
  const ask = readAsk(asked, units);
  if (!ask.ok) return { ...made, place, ok: false, field: ask.field, reason: ask.reason };
  try {
    const bare = brewCard(recipe, ask.ask, place);
    const brewer = chooseBrewer(brewers, bare, asked.brewerId);
    const card = brewCard(recipe, ask.ask, { ...place, brewer });
    const cups = Number(asked.cups);
    return {
      ...made,
      place: { ...place, brewer },
      ok: true,
      ask: ask.ask,
      card,
      brewer,
      capacity: capacityOf(
        brewer,
        card,
        brewers.some(({ onBench }) => onBench) ? onBench(brewers) : undefined,
      ),
      perCupG: equalShares(card.beverageG, cups),
      beansG: beansToWeighG(card.doseG, grinder ?? {}),
      grind: grinder ? grindSetting(grinder, card.grindBand, offsetSteps) : null,
    };
  } catch (error) {
    if (!(error instanceof RecipeError)) throw error;
    return { ...made, place, ok: false, field: LEAD_OF[error.field] ?? error.field, reason: error.message };
  }
}

const LEAD_OF: Record<string, string> = {
  cupMl: 'cup',
  eachMl: 'cup',
  doseG: 'dose',
  brewWaterG: 'water',
  drinkG: 'drink',
};

function brewersFor(recipe: Recipe, bar: Bar | null) {
  const here = bar ? brewersOn(bar) : [];
  return allBrewers(bar ?? {})
    .filter(({ method }) => method === recipe.method)
    .map((brewer) => ({ brewer, onBench: here.includes(brewer) }))
    .sort((a, b) => Number(b.onBench) - Number(a.onBench));
}
const onBench = (brewers: With['brewers']) =>
  brewers.filter((each) => each.onBench).map(({ brewer }) => brewer);

/** The one that was chosen; else the first that fits, on the bench before elsewhere; else the first. */
function chooseBrewer(brewers: With['brewers'], card: BrewCard, chosenId: string | null): Brewer {
  const chosen = brewers.find(({ brewer }) => brewer.id === chosenId);
  const here = brewers.filter((each) => each.onBench);
  const fitting = (here.length > 0 ? here : brewers).find(({ brewer }) => fitsBrewer(brewer, card));
  return (chosen ?? fitting ?? brewers[0]!).brewer;
}

const blank = (text: string | null): text is null => text === null || text.trim() === '';

function readAltitude(
  text: string | null,
): { ok: true; value: number | null } | { ok: false; reason: string } {
  if (blank(text)) return { ok: true, value: null };
  const read = readTyped(text, WORDS.altitude);
  if (!read.ok) return read;
  const { min, max } = ALTITUDE_RANGE_M;
  return read.value >= min && read.value <= max
    ? read
    : { ok: false, reason: WORDS.altitudeFromToM(min, max) };
}

type ReadAsk = { ok: true; ask: Ask } | { ok: false; field: string; reason: string };

/** What was typed, as what is asked; the recipe itself says what is out of its range. */
function readAsk(asked: ConverterInput, units: Units): ReadAsk {
  const any = { min: -1e9, max: 1e9 };
  const { lead, text } = asked;
  const amount: Read =
    lead === 'cup'
      ? readVolume(text, WORDS.cup, units, any, DECIMAL)
      : readMass(
          text,
          { dose: WORDS.dose, water: WORDS.water, drink: WORDS.drink }[lead],
          units,
          any,
          DECIMAL,
        );
  if (!amount.ok) return { ok: false, field: lead, reason: amount.reason };
  const cups = readTyped(asked.cups, WORDS.cupsLabel);
  if (!cups.ok || !Number.isInteger(cups.value) || cups.value < 1 || cups.value > 12)
    return { ok: false, field: 'cups', reason: cups.ok ? WORDS.cupsError : cups.reason };
  const ratio = blank(asked.ratio) ? null : readTyped(asked.ratio, WORDS.ratio);
  if (ratio && !ratio.ok) return { ok: false, field: 'ratio', reason: ratio.reason };
  if (ratio && (ratio.value < RATIO_RANGE.min || ratio.value > RATIO_RANGE.max))
    return { ok: false, field: 'ratio', reason: WORDS.ratioFromTo(RATIO_RANGE.min, RATIO_RANGE.max) };
  const extras = {
    ...(ratio ? { ratio: ratio.value } : {}),
    ...(asked.addition === 'nothing' ? {} : { addition: asked.addition }),
  };
  const value = amount.value;
  const leading =
    lead === 'cup'
      ? cups.value > 1
        ? { cups: cups.value, eachMl: value }
        : { cupMl: value }
      : lead === 'dose'
        ? { doseG: value }
        : lead === 'water'
          ? { brewWaterG: value }
          : { drinkG: value };
  return { ok: true, ask: { ...leading, ...extras } };
}
