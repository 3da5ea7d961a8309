/**
 * How long the water of a siphon's lower globe or of a pot takes over its flame. It depends on the mass of the water.
 */

/** J/(g K), liquid water. */
const WATER_HEAT = 4.186;
/** Water is driven up a little before it boils, degrees Celsius. */
const DRIVEN_BELOW_C = 3;
/** The power that a burner gives to the water until the bar's own log shows another, watts. */
const BURNER_W = 500;
/** Seconds that a gram takes to rise. */
const RISE_S_PER_G = 0.3;

/**
 * Seconds from the flame to near boiling: m x 4.186 x (T_boils - 3 - T_filled) / P_eff. Zero if it is that hot already.
 * @param massG what is filled in, grams
 * @param filledAtC what it is filled with, degrees Celsius
 * @param boilsAtC where water boils here, degrees Celsius
 */
export const nearBoilingS = (massG: number, filledAtC: number, boilsAtC: number): number =>
  (massG * WATER_HEAT * Math.max(0, boilsAtC - DRIVEN_BELOW_C - filledAtC)) / BURNER_W;

/** Seconds from near boiling until all of it has risen: 0.3 x m. */
export const riseS = (massG: number): number => RISE_S_PER_G * massG;
