/**
 * What a pour came to, in a line: fine, or how far off, what the card makes of it and what it does to the cup.
 */
import type { PourOutcome } from '@even-kettle/core/brew';
import { inWords, showMass, type Units } from '@even-kettle/core/units';

export function outcomeWords(outcome: PourOutcome, units: Units): string {
  const { verdict, offG, leftOut, final, ratio, strengthShare, bypassLessG, nextTargetG } = outcome;
  const water = (grams: number) => inWords(showMass(grams, units, 'water'));
  const off = water(Math.abs(offG));
  const next = nextTargetG === null ? '' : water(nextTargetG);
  if (verdict === 'fine')
    return Math.round(offG) === 0 ? 'Fine: to the gram.' : `Fine: ${off} ${offG > 0 ? 'over' : 'short'}.`;
  if (final && strengthShare === null) return `${off} ${verdict}: all of that water stays in the bed.`;
  if (final && bypassLessG > 0)
    return `${off} over: leave out ${water(bypassLessG)} of the bypass, and it is ${strengthInWords(strengthShare ?? 1)}.`;
  if (final) return `${off} ${verdict}: 1:${ratio.toFixed(1)}, ${strengthInWords(strengthShare ?? 1)}.`;
  if (leftOut.length > 0)
    return `${off} over, past ${leftOut.length === 1 ? `“${leftOut[0]}”, which is` : `${leftOut.length} pours, which are`} left out. Go on to ${next}.`;
  return verdict === 'over'
    ? `${off} over: the next pour is smaller, to ${next} as before.`
    : `${off} short: the next pour takes it along, to ${next}.`;
}

function strengthInWords(share: number): string {
  const change = Math.round(Math.abs(share - 1) * 100);
  return change === 0 ? 'as strong as planned' : `about ${change} % ${share < 1 ? 'weaker' : 'stronger'}`;
}
