/**
 * How much water a kettle needs, how long it takes to heat, and how long to wait until it has cooled.
 */
import { waterDensityGPerMl } from './density';

/** J/(kg K), liquid water. */
const WATER_HEAT_CAPACITY = 4186;
/** Share of the electric power that ends in the water. */
const KETTLE_EFFICIENCY = 0.85;
/** Water that warms a cup, grams. */
export const CUP_WARMING_G = 60;
/** A gentle pour needs a kettle no fuller than this, because a fuller one has to be lifted and falls harder. */
const GENTLE_SHARE = 0.6;
const FULL_SHARE = 0.9;
/**
 * Newton's k of a kettle off its base, per minute with 450 g in it, until its own has been learnt. It falls inversely as the
 * mass: a fuller kettle cools more slowly.
 */
export const DEFAULT_COOLING_PER_MIN = 0.016;
export const COOLING_AT_G = 450;

export type Kettle = {
  /** Heating power, watts. */
  powerW: number;
  /** Temperature of the water that it is filled with, degrees Celsius: a boiler tap's 90, or the mains'. */
  filledAtC: number;
  /** What it holds to its mark, millilitres. If left out, the size is unknown and no advice about it is given. */
  sizeMl?: number;
  /** The most that its spout pours, grams a second. If left out, it pours as fast as any recipe asks. */
  maxFlowGPerS?: number;
};

/**
 * Seconds to bring water to a temperature: m x 4186 x dT / (P x 0.85), m in kg, P in W.
 * Zero if the water is hot enough already.
 */
export function heatingTimeS(waterG: number, toC: number, kettle: Kettle): number {
  const riseC = Math.max(0, toC - kettle.filledAtC);
  return ((waterG / 1000) * WATER_HEAT_CAPACITY * riseC) / (kettle.powerW * KETTLE_EFFICIENCY);
}

/** Temperature of water after some seconds of heating: the same formula solved for the temperature. */
export const heatedC = (fromC: number, waterG: number, powerW: number, forS: number): number =>
  fromC + (powerW * KETTLE_EFFICIENCY * forS) / ((waterG / 1000) * WATER_HEAT_CAPACITY);

/** What one brew takes out of a kettle, grams: hot brew water, the filter's rinse or the glass's warming, the cup's. */
export type HotWater = { hotG: number; rinseG: number; cupG: number };

/** Water that is left over is poured away; none to spare is too little for a hand. */
const SPARE = 0.1;
const LEAST_SPARE = 0.05;
/** Rinsing takes any water from here up, degrees Celsius. */
const RINSES_FROM_C = 85;

const withSpare = (waterG: number, spare = SPARE): number => Math.ceil(round(waterG * (1 + spare)));

/** Grams to fill for one brew, with 10 % to spare. */
export const kettleFillG = ({ hotG, rinseG, cupG }: HotWater): number => withSpare(hotG + rinseG + cupG);

/** A filling of the kettle: how much, how hot, and what for. */
export type Fill = { g: number; atC: number; for: 'rinse' | 'brew' | 'both' };

/** The fillings, how much of the brew's own water does not fit even so (grams), and whether it is rinsed from the hot tap. */
export type Fills = { fills: Fill[]; shortG: number; isRinsedFromTap: boolean };

/**
 * The fillings that one brew asks of a kettle, none of them over its limit: all at once if that fits with something to spare.
 * Otherwise it is rinsed straight from the tap, if that is hot enough; and else rinsing and warming come first as a filling
 * of their own.
 * @param limitG the most that it may be filled to; Infinity if its size is unknown
 * @param tapC the tap's temperature
 */
export function fillsOf({ hotG, rinseG, cupG }: HotWater, atC: number, limitG: number, tapC: number): Fills {
  const toLimit = (waterG: number) => Math.min(limitG, withSpare(waterG));
  const allG = hotG + rinseG + cupG;
  const shortG = Math.max(0, Math.ceil(hotG - limitG));
  if (withSpare(allG, LEAST_SPARE) <= limitG)
    return { fills: [{ g: toLimit(allG), atC, for: 'both' }], shortG: 0, isRinsedFromTap: false };
  if (tapC >= RINSES_FROM_C)
    return { fills: [{ g: toLimit(hotG + cupG), atC, for: 'brew' }], shortG, isRinsedFromTap: true };
  return filledTwice({ hotG, rinseG, cupG }, atC, limitG);
}

/** As kettles were filled by cards of version 2: twice wherever all of it with a tenth to spare did not fit. */
export function fillsOfBefore(water: HotWater, atC: number, limitG: number): Fills {
  const allG = kettleFillG(water);
  return allG <= limitG
    ? { fills: [{ g: allG, atC, for: 'both' }], shortG: 0, isRinsedFromTap: false }
    : filledTwice(water, atC, limitG);
}

function filledTwice({ hotG, rinseG, cupG }: HotWater, atC: number, limitG: number): Fills {
  return {
    fills: [
      { g: Math.min(limitG, withSpare(rinseG + cupG)), atC, for: 'rinse' },
      { g: Math.min(limitG, withSpare(hotG)), atC, for: 'brew' },
    ],
    shortG: Math.max(0, Math.ceil(hotG - limitG)),
    isRinsedFromTap: false,
  };
}

/**
 * The most to fill a kettle of a size, grams: 60 % of it for a gentle pour, else 90 %, by the density of water at
 * that temperature.
 */
export const kettleLimitG = (sizeMl: number, atC: number, gentle: boolean): number =>
  Math.floor(sizeMl * (gentle ? GENTLE_SHARE : FULL_SHARE) * waterDensityGPerMl(atC));

/** The temperature of a kettle off its base after a time, by Newton's k per minute with 450 g; k depends on how much is in it. */
export type Cooling = { fromC: number; roomC: number; perMin?: number; massG?: number };

const kAt = ({ perMin = DEFAULT_COOLING_PER_MIN, massG = COOLING_AT_G }: Cooling): number =>
  (perMin * COOLING_AT_G) / Math.max(1, massG);

/** Temperature after some seconds off the base, degrees Celsius: T = room + (from - room) x exp(-k t). */
export const cooledToC = (cooling: Cooling, afterS: number): number =>
  cooling.roomC + (cooling.fromC - cooling.roomC) * Math.exp((-kAt(cooling) * afterS) / 60);

/**
 * "Boiled, wait until": seconds until the water has cooled to `toC`, t = ln((from - room) / (to - room)) / k.
 * Zero if it is that cool already.
 * @throws RangeError if it never cools that far: `toC` at or under the room's temperature
 */
export function coolingTimeS(cooling: Cooling, toC: number): number {
  const { fromC, roomC } = cooling;
  if (toC >= fromC) return 0;
  if (!(toC > roomC)) {
    throw new RangeError(
      `Water in a room of ${roomC} °C does not cool to ${toC} °C; ask for more than ${roomC}.`,
    );
  }
  return (Math.log((fromC - roomC) / (toC - roomC)) / kAt(cooling)) * 60;
}

/**
 * A kettle's own k per minute with 450 g, from two readings of it: k = ln((first - room) / (second - room)) / minutes,
 * times what is in it over 450 g.
 * @throws RangeError if the readings do not cool towards the room
 */
export function coolingPerMinFrom(
  firstC: number,
  secondC: number,
  apartS: number,
  roomC: number,
  massG = COOLING_AT_G,
): number {
  if (!(apartS > 0)) throw new RangeError('The second reading must come after the first.');
  if (!(massG > 0)) throw new RangeError('There must be water in the kettle.');
  if (!(firstC > secondC && secondC > roomC)) {
    throw new RangeError(
      `The readings must fall towards the room: from above, like 96 then 92, to more than ${roomC} °C.`,
    );
  }
  return (Math.log((firstC - roomC) / (secondC - roomC)) / (apartS / 60)) * (massG / COOLING_AT_G);
}

/** Sums of decimal fractions have errors in the 14th place, which must not round a fill up. */
const round = (value: number): number => Number(value.toFixed(6));
