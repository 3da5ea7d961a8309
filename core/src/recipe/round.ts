/** To so many decimals, as a person would write it. */
export const round = (value: number, digits: number): number => Number(value.toFixed(digits));
