/** What floating point may be off by; a half that is a hair under is still a half. */
const HAIR = 1e-9;

/** To so many decimals (0 to 6), halves up, as a person would write it. */
export function round(value: number, digits: number): number {
  const scale = 10 ** digits;
  return Math.round(value * scale + HAIR) / scale;
}

/** Up to the next whole, unless it is whole but for a hair. */
export const roundUp = (value: number): number => Math.ceil(value - 1e-6);
