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

/**
 * Grams to fill for one brew: hot brew water, rinsing or warming water and the cup's 60 g, with 10 % to spare.
 * @param rinseG what the filter's rinse or the warming of the glass takes
 */
export const kettleFillG = (hotWaterG: number, rinseG: number): number =>
  Math.ceil(round((hotWaterG + rinseG + CUP_WARMING_G) * 1.1));

/** A filling of the kettle: how much, how hot, and what for. */
export type Fill = { g: number; atC: number; for: 'rinse' | 'brew' | 'both' };

/**
 * The fillings that one brew asks of a kettle, none of them over its limit: all at once if that fits; otherwise rinsing and
 * warming first, and then the brew's own water, with as much to spare as the kettle has room for.
 * @param limitG the most that it may be filled to; Infinity if its size is unknown
 * @returns the fillings, and how much of the brew's own water does not fit even so, grams
 */
export function fillsOf(
  hotWaterG: number,
  rinseG: number,
  atC: number,
  limitG: number,
): { fills: Fill[]; shortG: number } {
  const allG = kettleFillG(hotWaterG, rinseG);
  if (allG <= limitG) return { fills: [{ g: allG, atC, for: 'both' }], shortG: 0 };
  const rinseFillG = Math.min(limitG, Math.ceil(round((rinseG + CUP_WARMING_G) * 1.1)));
  const brewFillG = Math.min(limitG, Math.ceil(round(hotWaterG * 1.1)));
  return {
    fills: [
      { g: rinseFillG, atC, for: 'rinse' },
      { g: brewFillG, atC, for: 'brew' },
    ],
    shortG: Math.max(0, Math.ceil(hotWaterG - limitG)),
  };
}

/** Grams to fill for several brews in a row from one kettle: the spare is on the whole. */
export const queueFillG = (brews: readonly { hotWaterG: number; rinseG: number }[]): number =>
  Math.ceil(
    round(brews.reduce((sum, { hotWaterG, rinseG }) => sum + hotWaterG + rinseG + CUP_WARMING_G, 0) * 1.1),
  );

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
