/**
 * Whether a batch fits a brewer, and what would where it does not. Nothing is clamped.
 */
import type { BrewCard } from './card';
import { BREWERS, METHODS } from './methods';
import type { Brewer } from './methods/brewer';
import { round } from './round';

export type Load = Pick<BrewCard, 'method' | 'doseG' | 'brewWaterG' | 'beverageG'> &
  Partial<Pick<BrewCard, 'bed'>>;

/** A basket that is heaped and not levelled holds so much more. */
export const HEAPED = 1.15;

/** What a brewer takes of a bed that is laid so, grams. */
function dosesIn({ filledWhole, minDoseG, maxDoseG }: Brewer, bed: BrewCard['bed'] | undefined) {
  const times = filledWhole && bed === 'heaped' ? HEAPED : 1;
  return { minDoseG: round(minDoseG * times, 1), maxDoseG: round(maxDoseG * times, 1) };
}

export type Fit =
  | { fits: true }
  /** `limit` is what it is beyond, grams. */
  | { fits: false; why: 'too little' | 'too much coffee' | 'too much water'; limitG: number };

/**
 * Whether a brewer takes this dose and water. A steeping brewer holds all of the water at once; a dripper drains while
 * it is filled, and a pour that would rise over its rim is split, so there the dose decides.
 */
export function fitIn(
  brewer: Brewer,
  { doseG, brewWaterG, bed }: Pick<Load, 'doseG' | 'brewWaterG' | 'bed'>,
): Fit {
  const { minDoseG, maxDoseG } = dosesIn(brewer, bed);
  if (doseG < minDoseG) return { fits: false, why: 'too little', limitG: minDoseG };
  if (doseG > maxDoseG) return { fits: false, why: 'too much coffee', limitG: maxDoseG };
  if (METHODS[brewer.method].steeps && brewWaterG > brewer.maxWaterG)
    return { fits: false, why: 'too much water', limitG: brewer.maxWaterG };
  return { fits: true };
}

export const fitsBrewer = (brewer: Brewer, load: Pick<Load, 'doseG' | 'brewWaterG' | 'bed'>): boolean =>
  fitIn(brewer, load).fits;

/** What could be brewed instead. */
export type WayOut =
  | { kind: 'other brewer'; brewer: Brewer }
  /** So many equal brews of this brewer; the second may start when the first is cleaned. */
  | { kind: 'equal brews'; brewer: Brewer; brews: number; eachMl: number }
  /** Nothing else will do: another size of cup, millilitres. */
  | { kind: 'other size'; brewer: Brewer; fromMl: number; toMl: number };

export type Capacity = { fit: Fit; words: string; waysOut: WayOut[] };

const BREWS_MAX = 6;

/** @param brewers those that stand on the bench; left out, every brewer there is */
export function capacityOf(brewer: Brewer, load: Load, brewers: readonly Brewer[] = BREWERS): Capacity {
  const fit = fitIn(brewer, load);
  if (fit.fits) return { fit, words: `${load.doseG} g fits the ${brewer.name}.`, waysOut: [] };
  const others = brewers
    .filter((other) => other.method === load.method && other.id !== brewer.id && fitsBrewer(other, load))
    .map((other): WayOut => ({ kind: 'other brewer', brewer: other }));
  const split = fit.why === 'too little' ? null : equalBrews(brewer, load);
  const waysOut = [...others, ...(split ? [split] : [])];
  const sizes = brewers.filter(({ method }) => method === load.method).map((other) => sizesOf(other, load));
  return { fit, words: fitWords(brewer, load, fit), waysOut: waysOut.length > 0 ? waysOut : sizes };
}

/** What a brewer makes of the same recipe, about. */
function sizesOf(brewer: Brewer, load: Load): WayOut {
  const steepedG = METHODS[brewer.method].steeps
    ? (brewer.maxWaterG * load.doseG) / load.brewWaterG
    : Infinity;
  const { minDoseG, maxDoseG } = dosesIn(brewer, load.bed);
  const ml = (doseG: number) => Math.round((doseG * load.beverageG) / load.doseG);
  return {
    kind: 'other size',
    brewer,
    fromMl: ml(minDoseG),
    toMl: ml(Math.min(maxDoseG, steepedG)),
  };
}

function equalBrews(brewer: Brewer, load: Load): WayOut | null {
  for (let brews = 2; brews <= BREWS_MAX; brews += 1) {
    const part = { doseG: round(load.doseG / brews, 1), brewWaterG: Math.round(load.brewWaterG / brews) };
    if (fitsBrewer(brewer, part))
      return { kind: 'equal brews', brewer, brews, eachMl: Math.round(load.beverageG / brews) };
  }
  return null;
}

function fitWords(brewer: Brewer, load: Load, fit: Exclude<Fit, { fits: true }>): string {
  const { minDoseG, maxDoseG } = dosesIn(brewer, load.bed);
  if (brewer.filledWhole)
    return `The ${brewer.name} is always filled whole, with ${round((minDoseG + maxDoseG) / 2, 1)} g: its basket sets the dose.`;
  switch (fit.why) {
    case 'too little':
      return `${load.doseG} g is too little for the ${brewer.name}: under ${fit.limitG} g the bed is too thin to brew evenly.`;
    case 'too much coffee':
      return `${load.doseG} g is too much for the ${brewer.name}, which takes up to ${fit.limitG} g.`;
    case 'too much water':
      return `${load.brewWaterG} g of water is too much for the ${brewer.name}, which holds ${fit.limitG} g.`;
  }
}

/** A way out as a barista would say it. */
export function wayOutInWords(way: WayOut): string {
  const { brewer } = way;
  if (way.kind === 'other brewer')
    return `It fits the ${brewer.name} (${brewer.minDoseG}–${brewer.maxDoseG} g).`;
  if (way.kind === 'other size' && way.brewer.filledWhole)
    // Pots are known by whole tens; a dose that was rounded says a millilitre more or less.
    return `The ${way.brewer.name} makes ${10 * Math.round((way.fromMl + way.toMl) / 20)} ml.`;
  if (way.kind === 'equal brews')
    return `${way.brews} equal brews of ${way.eachMl} ml in the ${brewer.name}.`;
  return `${brewer.name} makes about ${way.fromMl} to ${way.toMl} ml.`;
}

/** The first brewer of a method that a batch fits, smallest first; undefined where none does. */
export const brewerFor = (load: Load, brewers: readonly Brewer[] = BREWERS): Brewer | undefined =>
  brewers.find((brewer) => brewer.method === load.method && fitsBrewer(brewer, load));
