/**
 * For how long a kettle takes to be ready.
 */

/** J/(kg K), liquid water. */
const WATER_HEAT_CAPACITY = 4186;
/** Share of the electric power that ends in the water. */
const KETTLE_EFFICIENCY = 0.85;

export type Kettle = {
  /** Heating power, watts. */
  powerW: number;
  /** Temperature of the water that it is filled with, degrees Celsius: a boiler tap's 90, or the mains'. */
  filledAtC: number;
};

/**
 * Seconds to bring water to a temperature: m x 4186 x dT / (P x 0.85), m in kg, P in W.
 * Nought where the water is hot enough already.
 */
export function heatingTimeS(waterG: number, toC: number, kettle: Kettle): number {
  const riseC = Math.max(0, toC - kettle.filledAtC);
  return ((waterG / 1000) * WATER_HEAT_CAPACITY * riseC) / (kettle.powerW * KETTLE_EFFICIENCY);
}

/**
 * Grams to fill: brew water, rinsing or warming water, and 10 % to spare.
 * @param rinseG what the filter's rinse or the warming of the glass takes
 */
export const kettleFillG = (brewWaterG: number, rinseG: number): number =>
  Math.ceil((brewWaterG + rinseG) * 1.1);
