/**
 * For mixing two waters: the temperature of a mixture, and the share of each that gives a wanted one. Heat is taken to
 * stay in the water: T = (m1 T1 + m2 T2) / (m1 + m2).
 */

/** Some water: grams and degrees Celsius. */
export type Water = { massG: number; atC: number };

/** Temperature of mixed waters, degrees Celsius. @throws RangeError if there is no water, or a negative amount */
export function blendedC(waters: readonly Water[]): number {
  const massG = waters.reduce((sum, water) => sum + water.massG, 0);
  if (!(massG > 0) || waters.some((water) => !(water.massG >= 0))) {
    throw new RangeError('A mixture needs some water: give every mass in grams, none of them negative.');
  }
  return waters.reduce((sum, water) => sum + water.massG * water.atC, 0) / massG;
}

/**
 * How much hot and how much cold water make a mass at a wanted temperature, grams.
 * @throws RangeError if the wanted temperature is not between the two
 */
export function blendFor(
  massG: number,
  wantedC: number,
  { hotC, coldC }: { hotC: number; coldC: number },
): { hotG: number; coldG: number } {
  if (!(massG > 0)) throw new RangeError('The mass must be more than 0 g.');
  if (!(hotC > coldC))
    throw new RangeError(`The hot water must be hotter than the cold: ${hotC} and ${coldC} °C.`);
  if (!(wantedC >= coldC && wantedC <= hotC)) {
    throw new RangeError(`A mixture of ${coldC} and ${hotC} °C lies between them; ${wantedC} °C does not.`);
  }
  const hotG = (massG * (wantedC - coldC)) / (hotC - coldC);
  return { hotG, coldG: massG - hotG };
}
