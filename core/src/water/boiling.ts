/**
 * For knowing how hot water can get where the bar stands.
 */

const SEA_LEVEL_PA = 101325;
const PA_PER_MMHG = 133.322;

/** Lowest and highest altitude, in metres, for which the barometric formula is used here. */
export const ALTITUDE_RANGE_M = { min: -400, max: 5000 } as const;

/**
 * Air pressure at an altitude, by the barometric formula of the standard atmosphere:
 * p = 101325 x (1 - 2.25577e-5 x h)^5.25588.
 * @param altitudeM metres above the sea, -400 to 5,000
 * @returns pascals
 */
export const airPressurePa = (altitudeM: number): number =>
  SEA_LEVEL_PA * (1 - 2.25577e-5 * altitudeM) ** 5.25588;

/**
 * Boiling point of water at an altitude: the Antoine equation for water inverted,
 * log10 p(mmHg) = 8.07131 - 1730.63 / (233.426 + T).
 * @param altitudeM metres above the sea, -400 to 5,000
 * @returns degrees Celsius
 * @throws RangeError outside that range
 */
export function boilingPointC(altitudeM: number): number {
  if (!(altitudeM >= ALTITUDE_RANGE_M.min && altitudeM <= ALTITUDE_RANGE_M.max)) {
    throw new RangeError(
      `altitudeM must lie from ${ALTITUDE_RANGE_M.min} to ${ALTITUDE_RANGE_M.max} m, not ${altitudeM}`,
    );
  }
  const pressureMmHg = airPressurePa(altitudeM) / PA_PER_MMHG;
  return 1730.63 / (8.07131 - Math.log10(pressureMmHg)) - 233.426;
}
