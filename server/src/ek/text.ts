/**
 * Cards, tables and recipes as plain text for a terminal.
 */
import { pathsInBrief } from '@even-kettle/core/formats';
import { METHODS, bandInWords, type BrewCard, type MethodRow, type Recipe } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';

export function cardInText(recipe: Recipe, card: BrewCard): string {
  const facts: [string, string][] = [
    ['dose', `${card.doseG} g`],
    ['water', `${card.brewWaterG} g at ${card.waterC} °C, ${card.waterIs}`],
    ['ratio', `1:${card.ratio}`],
    ['grind', `${card.grindBand} of 100 (${bandInWords(card.grindBand)})`],
    ...(card.bypassG > 0
      ? [['bypass', `${card.bypassG} g, in all 1:${card.finalRatio}`] as [string, string]]
      : []),
    ...(card.mixedC === undefined ? [] : [['mixed', `${card.mixedC} °C`] as [string, string]]),
    ['beverage', `${card.beverageG} g${card.perCupG.length > 1 ? ` (${card.perCupG.join(' + ')})` : ''}`],
    ...(card.drinkG === card.beverageG ? [] : [['drink', `${card.drinkG} g`] as [string, string]]),
    ['hot water', `${card.kettleFillG} g to have ready`],
    [
      'time',
      `${showClock(card.brewTimeS)} (${showClock(card.brewWindowS.from)} to ${showClock(card.brewWindowS.to)})`,
    ],
    ['hands', showClock(card.handsTimeS)],
  ];
  const steps = card.steps.map(
    (step) =>
      `  ${showClock(step.startS).padStart(6)}  ${step.attended ? '•' : ' '} ${step.name}${step.end === 'cue' ? ` until “${step.cue}”` : ''}${step.startCue ? ` when ${step.startCue}` : ''}${step.targetG === undefined ? '' : `, to ${step.targetG} g`}${step.paths ? ` (${pathsInBrief(step)})` : ''}`,
  );
  return [
    `${METHODS[recipe.method].name}: ${recipe.name} (${recipe.id})`,
    ...facts.map(([name, value]) => `  ${name.padEnd(10)} ${value}`),
    '',
    ...steps,
    ...(card.notes.length > 0 ? ['', ...card.notes.map((note) => `  ${note}`)] : []),
    '',
  ].join('\n');
}

export function methodsInText(rows: readonly MethodRow[]): string {
  const cells = rows.map((row) =>
    row.ok
      ? [
          METHODS[row.recipe.method].name,
          row.recipe.id,
          `${row.card.doseG} g`,
          `${row.card.brewWaterG} g`,
          `1:${row.card.ratio.toFixed(1)}`,
          `${row.card.waterC} °C`,
          String(row.card.grindBand),
          showClock(row.card.brewTimeS),
          showClock(row.card.handsTimeS),
          `${METHODS[row.recipe.method].body}/5`,
          `${METHODS[row.recipe.method].clarity}/5`,
          row.brewer?.name ?? 'no brewer in one go',
        ]
      : [METHODS[row.recipe.method].name, row.recipe.id, row.reason],
  );
  const head = [
    'method',
    'recipe',
    'dose',
    'water',
    'ratio',
    'water at',
    'grind',
    'time',
    'hands',
    'body',
    'clarity',
    'brewer',
  ];
  const widths = head.map((_, column) =>
    Math.max(
      ...[head, ...cells.filter((row) => row.length === head.length)].map((row) => row[column]?.length ?? 0),
    ),
  );
  return [head, ...cells]
    .map((row) =>
      row
        .map((cell, column) => cell.padEnd(widths[column]!))
        .join('  ')
        .trimEnd(),
    )
    .join('\n')
    .concat('\n');
}

export const recipeInText = (recipe: Recipe): string =>
  [
    `${recipe.id}, version ${recipe.version}: ${METHODS[recipe.method].name}, ${recipe.name}`,
    `  ${recipe.why}`,
    `  ${recipe.refDoseG} g, 1:${recipe.ratio}, grind ${recipe.grindBand}, ${recipe.waterC} °C ${recipe.waterIs}, ends ${showClock(recipe.endWindowS.from)} to ${showClock(recipe.endWindowS.to)}`,
    ...recipe.steps.map(({ id, name, phase }) => `  ${phase.padEnd(7)} ${id.padEnd(14)} ${name}`),
    '',
  ].join('\n');
