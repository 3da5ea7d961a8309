/**
 * What stands on the bench, as the planner needs to know it.
 */
import {
  DEFAULT_PLACE,
  RecipeError,
  brewCard,
  brewerById,
  fitsBrewer,
  largestPourG,
  type BrewCard,
  type RecipeBook,
} from '../recipe';
import { brewAt, type BarState, type CupAsk } from '../brew';
import type { Kettle } from '../water';

export type Station = { id: string; name: string; brewerId: string };

export type Bench = {
  hands: number;
  stations: Station[];
  grinders: number;
  kettles: number;
  kettle: Kettle;
  altitudeM: number;
};

/** The card of a cup as this bench would brew it, or why there is none. */
export function cardFor(
  bench: Bench,
  cup: CupAsk,
  book: RecipeBook,
): { ok: true; card: BrewCard; stations: Station[] } | { ok: false; field: string; reason: string } {
  const recipe = book(cup);
  if (!recipe)
    return {
      ok: false,
      field: 'recipeId',
      reason: `There is no recipe ${cup.recipeId} version ${cup.recipeVersion}.`,
    };
  try {
    const card = brewCard(
      recipe,
      { cupMl: cup.cupMl },
      { ...DEFAULT_PLACE, roast: cup.roast, altitudeM: bench.altitudeM, kettle: bench.kettle },
    );
    const ofMethod = bench.stations.filter(
      (station) => brewerById(station.brewerId)?.method === recipe.method,
    );
    const stations = ofMethod.filter((station) =>
      fitsBrewer(brewerById(station.brewerId)!, { ...card, largestPourG: largestPourG(card) }),
    );
    if (stations.length > 0) return { ok: true, card, stations };
    return {
      ok: false,
      field: 'cupMl',
      reason:
        ofMethod.length === 0 ? 'No station on the bench brews this method.' : whatWouldFit(card, ofMethod),
    };
  } catch (error) {
    if (!(error instanceof RecipeError)) throw error;
    return { ok: false, field: error.field, reason: error.message };
  }
}

/** The station that a cup would be brewed at: the first that is free, else the first that fits. */
export function stationFor(
  bench: Bench,
  state: BarState,
  cup: CupAsk,
  book: RecipeBook,
): { station: Station; free: boolean } | null {
  const found = cardFor(bench, cup, book);
  if (!found.ok) return null;
  const free = found.stations.find((station) => !brewAt(state, station.id));
  return { station: free ?? found.stations[0]!, free: free !== undefined };
}

function whatWouldFit(card: BrewCard, stations: Station[]): string {
  const brewers = [...new Set(stations.map((station) => station.brewerId))].map((id) => brewerById(id)!);
  const ranges = brewers.map((brewer) => {
    const [from, to] = [brewer.minDoseG, Math.min(brewer.maxDoseG, largestDoseG(card, brewer.maxWaterG))].map(
      (doseG) => Math.round((doseG * card.beverageG) / card.doseG),
    );
    return `${brewer.name} makes about ${from} to ${to} ml`;
  });
  return `This cup needs ${card.doseG} g and fits no brewer here: ${ranges.join('; ')}.`;
}

const largestDoseG = (card: BrewCard, maxWaterG: number): number =>
  (card.doseG * maxWaterG) / largestPourG(card);
