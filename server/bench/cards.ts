/**
 * How long it takes to convert every recipe to every cup anywhere, with each card looked over. Run by `npm run bench`.
 */
import { readRecipeText } from '@even-kettle/core/formats';
import { ROAST_LEVELS, SCHOOLS, brewCard, type BrewCard } from '@even-kettle/core/recipe';

const CUPS_ML = Array.from({ length: 60 }, (_, index) => 60 + index * 10);
const ALTITUDES_M = [0, 600, 1500, 2150];

const from = performance.now();
let cards = 0;
const wrong: string[] = [];
for (const recipe of SCHOOLS)
  for (const cupMl of CUPS_ML)
    for (const roast of ROAST_LEVELS)
      for (const altitudeM of ALTITUDES_M) {
        const card = brewCard(
          recipe,
          { cupMl },
          { altitudeM, roast, kettle: { powerW: 1200, filledAtC: 90 } },
        );
        cards += 1;
        const fault = faultOf(card);
        if (fault) wrong.push(`${recipe.id} ${cupMl} ml ${roast} ${altitudeM} m: ${fault}`);
      }
const tookMs = performance.now() - from;
const { rss } = process.memoryUsage();
console.log(
  `  ${cards} cards (${SCHOOLS.length} recipes x ${CUPS_ML.length} cups x ${ROAST_LEVELS.length} roasts x ${ALTITUDES_M.length} altitudes) in ${Math.round(tookMs)} ms, ${Math.round(rss / 1e6)} MB; ${wrong.length} wrong`,
);
if (wrong.length > 0) throw new Error(wrong.slice(0, 10).join('\n'));

const SAID =
  'So twenty grams, no, twenty-one grams in the cone, three hundred and thirty of water at ninety-three. Sixty to bloom, forty seconds, then up to two hundred in circles, and at one thirty the rest. Dry by three ten.\n';
const longest = SAID.repeat(400).slice(0, 65_536);
readRecipeText(SAID);
const readFrom = performance.now();
readRecipeText(longest);
const longMs = performance.now() - readFrom;
const times = 200;
const eachFrom = performance.now();
for (let n = 0; n < times; n += 1) readRecipeText(SAID);
console.log(
  `  a recipe of ${SAID.length} characters is read in ${((performance.now() - eachFrom) / times).toFixed(1)} ms, 64 KB of text in ${Math.round(longMs)} ms`,
);

/** No figure that is no number or negative, no sum that is off. */
function faultOf(card: BrewCard): string | null {
  const poured = card.steps.filter((step) => step.pourG !== undefined);
  const pouredG = poured.reduce((sum, step) => sum + step.pourG!, 0);
  if (poured.length > 0 && pouredG !== card.brewWaterG) return `pours ${pouredG} of ${card.brewWaterG} g`;
  if (card.beverageG + card.retainedG + card.lossG !== card.brewWaterG + card.bypassG) return 'water is lost';
  const figures = [
    card.doseG,
    card.brewWaterG,
    card.beverageG,
    card.ratio,
    card.waterC,
    card.kettleFillG,
    card.brewTimeS,
  ];
  if (figures.some((figure) => !(figure > 0))) return `a figure of ${figures.join(', ')}`;
  const late = card.steps.find(
    (step, index) => step.startS < (card.steps[index - 1]?.endS ?? -Infinity) || !(step.durationS > 0),
  );
  return late ? `${late.id} overlaps` : null;
}
