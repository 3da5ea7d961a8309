/**
 * `npm run bench -- lab`: how long a 60-cup hour takes to simulate, whether a difference of 5 % is seen, what one more of
 * each tool does, and how a shift that is planned less often compares with one that is planned after every tap.
 */
import { lanternPier } from '@even-kettle/core/demo';
import {
  CAREFULLY,
  changesOf,
  differenceOf,
  isSure,
  labFigures,
  liveLabShift,
  meanWaitS,
  variantOf,
  type LabShift,
  type LabVariant,
} from '@even-kettle/core/practice';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';

const SHIFTS = Number(process.env['SHIFTS'] ?? 20);
const CUPS = Number(process.env['CUPS'] ?? 60);
const book = bookOf(SCHOOLS);
const bar = lanternPier(Date.UTC(2026, 0, 5, 8));
/** What `npm run rush` serves, by the shares in which its guests ask for it. */
const MENU = (
  [
    ['cone-thirds', 250, 52],
    ['press-long', 250, 21],
    ['cone-steady', 250, 13],
    ['sock-fours', 250, 9],
    ['siphon-late', 350, 5],
  ] as const
).map(([recipeId, cupMl, share]) => ({
  recipeId,
  recipeVersion: 1,
  coffee: 'Saltmarsh',
  roast: 'light' as const,
  cupMl,
  share,
}));
/** A boat every quarter of an hour. */
const BOATS = Array.from({ length: 12 }, (_, slot) => (slot % 3 === 0 ? 4 : 1));
const hour = (cupsAnHour: number, hands: number): LabVariant => ({
  ...variantOf(bar, MENU, { cupsAnHour, curve: BOATS }, 'bench'),
  hands,
});

async function live(variant: LabVariant, careFor?: Parameters<typeof liveLabShift>[4]): Promise<LabShift[]> {
  const shifts: LabShift[] = [];
  for (let seed = 1; seed <= SHIFTS; seed += 1)
    shifts.push(await liveLabShift(bar, variant, book, seed, careFor));
  return shifts;
}
const seconds = (s: number) => `${s.toFixed(0)} s`;

for (const hands of [1, 2, 3]) {
  const fromMs = performance.now();
  const figures = labFigures(await live(hour(CUPS, hands)));
  console.log(
    `  ${CUPS} cups, ${hands} pairs of hands, ${SHIFTS} shifts in ${seconds((performance.now() - fromMs) / 1000)}: ${figures.cupsAnHour.toFixed(1)} cups/h, wait median ${seconds(figures.medianS)}, p90 ${seconds(figures.p90S)}; busiest: ${figures.bottleneck}`,
  );
}
const usual = await live(hour(14, 1));
const { meanS } = labFigures(usual);
const compare = (what: string, shifts: readonly LabShift[]) => {
  const difference = differenceOf(shifts, usual, meanWaitS)!;
  console.log(
    `  ${what.padEnd(28)} ${seconds(difference.by)} ± ${seconds(difference.give)} on ${seconds(meanS)}${isSure(difference) ? '' : ' (may be chance)'}`,
  );
};
compare('hands 5 % slower', await live({ ...hour(14, 1), paceBy: 1.05 }));
for (const { what, brewerId, andHabits, variant } of changesOf(hour(14, 1)))
  if (!andHabits) compare(`changed: ${brewerId ?? what}`, await live(variant));
compare('planned after every tap', await live(hour(14, 1), () => CAREFULLY));
