/**
 * The command line: the core's computation for scripts and for people at a prompt. It reads arguments and files, and
 * writes text; nothing is stored.
 */
import { Command, CommanderError, InvalidArgumentError } from 'commander';
import {
  ADDITIONS,
  BREWERS,
  DEFAULT_PLACE,
  METHODS,
  ROAST_LEVELS,
  RecipeError,
  SCHOOLS,
  brewCard,
  capacityOf,
  wayOutInWords,
  methodTable,
  recipeFromPlain,
  type Ask,
  type BrewSite,
} from '@even-kettle/core/recipe';
import {
  convertJson,
  plainFrom,
  readPlan,
  readPlanProblem,
  readRecipeText,
  readTextJson,
  recipeJsonSchema,
  stepTableCsv,
  type ReadText,
} from '@even-kettle/core/formats';
import { ImpossibleProblem, checkPlan, planCost, startSolving } from '@even-kettle/core/plan';
import { ML_PER_FL_OZ } from '@even-kettle/core/units';
import {
  STDIN,
  Wrong,
  findBrewer,
  findRecipe,
  number,
  readChecked,
  readFile,
  readText,
  type Io,
} from './reading';
import { cardInText, methodsInText, recipeInText } from './text';
import { addWater } from './water';

/** A plan that breaks its rules: said on stderr, with exit code 1. */
class Broken extends Error {}

/** Runs one command line and gives its exit code: 0 done, 1 a plan that was checked breaks a rule, 2 something asked for was wrong. */
export function runEk(args: readonly string[], io: Io): number {
  const program = ekProgram(io);
  try {
    program.parse([...args], { from: 'user' });
    return 0;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (error instanceof Broken) {
      io.err(`${error.message}\n`);
      return 1;
    }
    if (
      error instanceof ImpossibleProblem ||
      error instanceof Wrong ||
      error instanceof RecipeError ||
      error instanceof RangeError
    ) {
      io.err(`${error.message}\n`);
      return 2;
    }
    throw error;
  }
}

const oneOf =
  <Value extends string>(values: readonly Value[]) =>
  (text: string): Value => {
    const found = values.find((value) => value === text);
    if (found !== undefined) return found;
    throw new InvalidArgumentError(`It must be one of: ${values.join(', ')}.`);
  };

type Asking = {
  beverageMl?: number;
  beverageFloz?: number;
  drinkG?: number;
  doseG?: number;
  waterG?: number;
  cups?: number;
  eachMl?: number;
  ratio?: number;
  with?: (typeof ADDITIONS)[number];
  roast: BrewSite['roast'];
  altitudeM: number;
  tapC: number;
  kettleW: number;
  kettleMl: number;
};

/** The options that name a cup and where it is brewed. */
const asking = (command: Command): Command =>
  command
    .option('--beverage-ml <ml>', 'size of the cup, ml of beverage', number('--beverage-ml'))
    .option('--beverage-floz <oz>', 'size of the cup, US fl oz', number('--beverage-floz'))
    .option('--drink-g <g>', 'mass of the whole drink, milk and melted ice included', number('--drink-g'))
    .option('--dose-g <g>', 'dry coffee', number('--dose-g'))
    .option('--water-g <g>', 'brew water', number('--water-g'))
    .option('--cups <n>', 'number of cups from one brew', number('--cups'))
    .option('--each-ml <ml>', 'size of each of those cups (250)', number('--each-ml'))
    .option('--ratio <r>', 'grams of water to one of coffee, instead of the recipe’s', number('--ratio'))
    .option('--with <addition>', `one of: ${ADDITIONS.join(', ')}`, oneOf(ADDITIONS))
    .option('--roast <level>', `one of: ${ROAST_LEVELS.join(', ')}`, oneOf(ROAST_LEVELS), 'medium')
    .option('--altitude-m <m>', 'metres above the sea', number('--altitude-m'), 0)
    .option('--tap-c <c>', 'what kettles and globes are filled with', number('--tap-c'), 90)
    .option('--kettle-w <w>', 'the kettle’s power', number('--kettle-w'), 1200)
    .option('--kettle-ml <ml>', 'what the kettle holds to its mark', number('--kettle-ml'), 1000);

const LEADS = {
  beverageMl: '--beverage-ml',
  beverageFloz: '--beverage-floz',
  drinkG: '--drink-g',
  doseG: '--dose-g',
  waterG: '--water-g',
  cups: '--cups',
} as const;

function askOf(asked: Asking): Ask {
  const given = (Object.keys(LEADS) as (keyof typeof LEADS)[]).filter((lead) => asked[lead] !== undefined);
  if (given.length !== 1)
    throw new Wrong(
      given.length === 0
        ? `Say what the cup is to be: one of ${Object.values(LEADS).join(', ')}.`
        : `${given.map((lead) => LEADS[lead]).join(' and ')} say the same twice; give one of them.`,
    );
  const extras = {
    ...(asked.ratio === undefined ? {} : { ratio: asked.ratio }),
    ...(asked.with ? { addition: asked.with } : {}),
  };
  if (asked.cups !== undefined)
    return { cups: asked.cups, ...(asked.eachMl === undefined ? {} : { eachMl: asked.eachMl }), ...extras };
  if (asked.eachMl !== undefined) throw new Wrong('--each-ml goes with --cups.');
  if (asked.doseG !== undefined) return { doseG: asked.doseG, ...extras };
  if (asked.waterG !== undefined) return { brewWaterG: asked.waterG, ...extras };
  if (asked.drinkG !== undefined) return { drinkG: asked.drinkG, ...extras };
  return { cupMl: asked.beverageMl ?? asked.beverageFloz! * ML_PER_FL_OZ, ...extras };
}

const placeOf = ({ roast, altitudeM, tapC, kettleW, kettleMl }: Asking): BrewSite => {
  if (!(kettleMl >= 200 && kettleMl <= 6000)) throw new Wrong('--kettle-ml must be from 200 to 6000 ml.');
  if (!(kettleW >= 100 && kettleW <= 5000)) throw new Wrong('--kettle-w must be from 100 to 5000 W.');
  if (!(tapC >= 1 && tapC <= 99)) throw new Wrong('--tap-c must be from 1 to 99 °C.');
  return {
    ...DEFAULT_PLACE,
    roast,
    altitudeM,
    kettle: { powerW: kettleW, filledAtC: tapC, sizeMl: kettleMl },
    setBy: 'asked',
  };
};

export function ekProgram(io: Io): Command {
  const program = new Command('ek')
    .description('Even Kettle’s numbers: recipes converted to the cup, methods side by side, water.')
    .exitOverride()
    .configureOutput({ writeOut: io.out, writeErr: io.err })
    .showHelpAfterError('Ask for “--help” to see what there is.')
    .addHelpText(
      'after',
      '\nAlso: ek lab <file> [--json]   simulate the variants of a file from the rush lab',
    );

  asking(
    program
      .command('convert')
      .description('convert a recipe to a cup')
      .requiredOption('--recipe <id>', 'a recipe that ships, or a recipe file (.json)'),
  )
    .option('--brewer <id>', `one of: ${BREWERS.map(({ id }) => id).join(', ')}`)
    .option('--json', 'the card as JSON')
    .option('--csv', 'the steps as CSV')
    .action((asked: Asking & { recipe: string; brewer?: string; json?: boolean; csv?: boolean }) => {
      const recipe = findRecipe(asked.recipe, io);
      const brewer = asked.brewer === undefined ? undefined : findBrewer(asked.brewer, recipe);
      const bare = brewCard(recipe, askOf(asked), placeOf(asked));
      const capacity = brewer && capacityOf(brewer, bare);
      const made = brewer ? brewCard(recipe, askOf(asked), { ...placeOf(asked), brewer }) : bare;
      const card =
        capacity && !capacity.fit.fits
          ? { ...made, notes: [...made.notes, capacity.words, ...capacity.waysOut.map(wayOutInWords)] }
          : made;
      if (asked.json) io.out(`${JSON.stringify(convertJson(card), null, 2)}\n`);
      else io.out(asked.csv ? stepTableCsv(card) : cardInText(recipe, card));
    });

  asking(program.command('methods').description('the same cup in every method, side by side'))
    .option('--json', 'as JSON')
    .action((asked: Asking & { json?: boolean }) => {
      const led = Object.keys(LEADS).some((lead) => asked[lead as keyof typeof LEADS] !== undefined);
      const rows = methodTable(SCHOOLS, askOf(led ? asked : { ...asked, beverageMl: 250 }), placeOf(asked));
      if (!asked.json) return io.out(methodsInText(rows));
      const json = rows.map((row) =>
        row.ok
          ? { method: row.recipe.method, brewer: row.brewer?.id ?? null, ...convertJson(row.card) }
          : { method: row.recipe.method, recipe: row.recipe.id, error: row.reason },
      );
      io.out(`${JSON.stringify(json, null, 2)}\n`);
    });

  addRecipe(program, io);
  addPlan(program, io);
  addWater(program, io);
  // The same for every command below, so that none of them ends the process by itself.
  for (const each of everyCommand(program))
    each.exitOverride().configureOutput({ writeOut: io.out, writeErr: io.err });
  return program;
}

function addRecipe(program: Command, io: Io): void {
  const recipe = program.command('recipe').description('look at recipes and check recipe files');
  recipe
    .command('list')
    .description('every recipe that ships')
    .action(() =>
      io.out(
        SCHOOLS.map(({ id, method, name }) => `${id.padEnd(18)} ${METHODS[method].name}: ${name}\n`).join(''),
      ),
    );
  recipe
    .command('show <recipe>')
    .description('a recipe that ships, or those of a file')
    .option('--json', 'as JSON')
    .action((which: string, { json }: { json?: boolean }) => {
      const found = which.endsWith('.json') ? readFile(which, io) : [findRecipe(which, io)];
      io.out(json ? `${JSON.stringify(found, null, 2)}\n` : found.map(recipeInText).join('\n'));
    });
  recipe
    .command('check <file>')
    .description('whether a recipe file is sound, field by field')
    .action((file: string) => {
      const found = readFile(file, io);
      io.out(`${file}: ${found.length === 1 ? 'one recipe' : `${found.length} recipes`}, all sound.\n`);
    });

  recipe
    .command('read')
    .description('a recipe out of a text, as people say and write it, as JSON')
    .argument('[file]', 'the text; left out, standard input', STDIN)
    .option('--card', 'the card that is made of it, for its own dose')
    .action((file: string, { card }: { card?: boolean }) => {
      const text = readText(file, io, TEXT_MAX, 'a text').text();
      const read = readRecipeText(text);
      io.out(card ? cardOfText(read) : `${JSON.stringify(readTextJson(read), null, 2)}\n`);
    });
  recipe
    .command('schema')
    .description('the JSON Schema of a recipe')
    .action(() => io.out(`${JSON.stringify(recipeJsonSchema(), null, 2)}\n`));
}

/** Bytes. */
const TEXT_MAX = 65_536;

/** @throws Wrong where the text does not say all of a recipe, or contradicts itself */
function cardOfText(read: ReadText): string {
  const from = plainFrom(read, 'From a text');
  const doubtful = [...new Set([...read.asked, ...(from.ok ? [] : from.missing)])];
  if (!from.ok || doubtful.length > 0)
    throw new Wrong(`There is no card before these are said, once each: ${doubtful.join(', ')}.`);
  const made = recipeFromPlain(from.plain, 'from-a-text');
  if (!made.ok) throw new Wrong(made.faults.map(({ field, reason }) => `${field}: ${reason}`).join('\n'));
  const roast = read.roast ?? DEFAULT_PLACE.roast;
  return cardInText(
    made.recipe,
    brewCard(made.recipe, { doseG: made.recipe.refDoseG }, { ...DEFAULT_PLACE, roast }),
  );
}

const PLAN_DEFAULT_MS = 1000;
/** Moves between two looks at the clock. */
const SLICE = 5;

function addPlan(program: Command, io: Io): void {
  program
    .command('plan')
    .description('the timetable of a planning problem, as JSON')
    .argument('<problem.json>', 'an even-kettle/plan-problem@1 file')
    .option('--budget-ms <ms>', 'how long to look for better plans', number('--budget-ms'), PLAN_DEFAULT_MS)
    .option('--seed <n>', 'the same seed looks the same way', number('--seed'), 1)
    .action((path: string, { budgetMs, seed }: { budgetMs: number; seed: number }) => {
      if (!(budgetMs >= 0 && budgetMs <= 3_600_000))
        throw new Wrong('--budget-ms must be from 0 to 3600000 (an hour).');
      const problem = readChecked(path, io, readPlanProblem);
      const untilMs = io.nowMs() + budgetMs;
      const solving = startSolving(problem, { seed: Math.trunc(seed) });
      while (io.nowMs() < untilMs && !solving.proven()) solving.improve(SLICE);
      io.out(`${JSON.stringify(solving.plan(), null, 1)}\n`);
    });
  program
    .command('check')
    .description('every rule that a plan breaks, and its cost worked out anew')
    .argument('<problem.json>', 'an even-kettle/plan-problem@1 file')
    .argument('<plan.json>', 'an even-kettle/plan@1 file')
    .action((problemPath: string, planPath: string) => {
      const problem = readChecked(problemPath, io, readPlanProblem);
      const plan = readChecked(planPath, io, readPlan);
      const broken = checkPlan(problem, plan);
      if (broken.length > 0) throw new Broken(broken.join('\n'));
      const { cost } = planCost(problem, plan);
      io.out(`All rules are kept. Cost ${cost}.\n`);
    });
}

const everyCommand = (command: Command): Command[] =>
  command.commands.flatMap((each) => [each as Command, ...everyCommand(each as Command)]);
