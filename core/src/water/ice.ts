/**
 * Ice that cools a hot drink and becomes part of it.
 */

/** J/(g K) of water, and J/g that ice takes to melt. */
const WATER_HEAT = 4.186;
const MELTING_HEAT = 334;
/** How cold an iced drink is meant to be, degrees Celsius. */
export const ICED_C = 6;

/**
 * Grams of ice that melt for each gram of a hot drink that is cooled to a temperature: the heat of the drink melts the ice
 * and warms it. m_ice = m_hot x 4.186 x (T_hot - T_end) / (334 + 4.186 x T_end)
 */
export const iceShare = (hotC: number, endC: number = ICED_C): number =>
  (WATER_HEAT * Math.max(0, hotC - endC)) / (MELTING_HEAT + WATER_HEAT * endC);
