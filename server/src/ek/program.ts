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
  brewerById,
  capacityOf,
  wayOutInWords,
  methodTable,
  type Ask,
  type Brewer,
  type Place,
  type Recipe,
} from '@even-kettle/core/recipe';
import {
  RECIPES_FILE_MAX,
  PLAN_FILE_MAX,
  convertJson,
  readPlan,
  readPlanProblem,
  readRecipes,
  recipeJsonSchema,
  stepTableCsv,
} from '@even-kettle/core/formats';
import { ImpossibleProblem, checkPlan, planCost, startSolving } from '@even-kettle/core/plan';
import { ML_PER_FL_OZ, readNumber, showClock } from '@even-kettle/core/units';
import {
  blendFor,
  blendedC,
  boilingPointC,
  coolingPerMinFrom,
  coolingTimeS,
  heatingTimeS,
  type Water,
} from '@even-kettle/core/water';
import { cardInText, methodsInText, recipeInText } from './text';

/** What a command writes to, and reads files with. */
export type Io = {
  out: (text: string) => void;
  err: (text: string) => void;
  /** @throws Error with a `code`, as the file system gives */
  readFile: (path: string) => { size: number; text: () => string };
  /** Any clock that only goes forward, milliseconds. */
  nowMs: () => number;
};

/** A wrong argument or a wrong file: said on stderr, with exit code 2. */
class Wrong extends Error {}
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

const number = (name: string) => (text: string) => {
  const read = readNumber(text, name);
  if (read.ok) return read.value;
  throw new InvalidArgumentError(read.reason);
};
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
  roast: Place['roast'];
  altitudeM: number;
  tapC: number;
  kettleW: number;
};

/** The options that name a cup and where it is brewed. */
const asking = (command: Command): Command =>
  command
    .option('--beverage-ml <ml>', 'size of the cup, ml of beverage', number('--beverage-ml'))
    .option('--beverage-floz <oz>', 'size of the cup, US fl oz', number('--beverage-floz'))
    .option('--drink-g <g>', 'mass of the whole drink, milk included', number('--drink-g'))
    .option('--dose-g <g>', 'dry coffee', number('--dose-g'))
    .option('--water-g <g>', 'brew water', number('--water-g'))
    .option('--cups <n>', 'number of cups from one brew', number('--cups'))
    .option('--each-ml <ml>', 'size of each of those cups (250)', number('--each-ml'))
    .option('--ratio <r>', 'grams of water to one of coffee, instead of the recipe’s', number('--ratio'))
    .option('--with <addition>', `one of: ${ADDITIONS.join(', ')}`, oneOf(ADDITIONS))
    .option('--roast <level>', `one of: ${ROAST_LEVELS.join(', ')}`, oneOf(ROAST_LEVELS), 'medium')
    .option('--altitude-m <m>', 'metres above the sea', number('--altitude-m'), 0)
    .option('--tap-c <c>', 'what kettles and globes are filled with', number('--tap-c'), 90)
    .option('--kettle-w <w>', 'the kettle’s power', number('--kettle-w'), 1200);

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

const placeOf = ({ roast, altitudeM, tapC, kettleW }: Asking): Place => {
  if (!(kettleW >= 100 && kettleW <= 5000)) throw new Wrong('--kettle-w must be from 100 to 5000 W.');
  if (!(tapC >= 1 && tapC <= 99)) throw new Wrong('--tap-c must be from 1 to 99 °C.');
  return { ...DEFAULT_PLACE, roast, altitudeM, kettle: { powerW: kettleW, filledAtC: tapC }, setBy: 'asked' };
};

export function ekProgram(io: Io): Command {
  const program = new Command('ek')
    .description('Even Kettle’s numbers: recipes converted to the cup, methods side by side, water.')
    .exitOverride()
    .configureOutput({ writeOut: io.out, writeErr: io.err })
    .showHelpAfterError('Ask for “--help” to see what there is.');

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
    .command('schema')
    .description('the JSON Schema of a recipe')
    .action(() => io.out(`${JSON.stringify(recipeJsonSchema(), null, 2)}\n`));

  addPlan(program, io);
  addWater(program, io);
  // The same for every command below, so that none of them ends the process by itself.
  for (const each of everyCommand(program))
    each.exitOverride().configureOutput({ writeOut: io.out, writeErr: io.err });
  return program;
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

function readChecked<Value>(
  path: string,
  io: Io,
  read: (
    text: string,
  ) => { ok: true; value: Value } | { ok: false; faults: { field: string; reason: string }[] },
): Value {
  const got = read(readText(path, io, PLAN_FILE_MAX, 'a planning file').text());
  if (got.ok) return got.value;
  const shown = got.faults.slice(0, 20).map(({ field, reason }) => `  ${field}: ${reason}`);
  throw new Wrong([`${path}:`, ...shown].join('\n'));
}

const everyCommand = (command: Command): Command[] =>
  command.commands.flatMap((each) => [each as Command, ...everyCommand(each as Command)]);

function addWater(program: Command, io: Io): void {
  const water = program.command('water').description('boiling, blending, cooling, heating');
  const c = (value: number) => `${value.toFixed(1)} °C\n`;
  water
    .command('boil')
    .description('where water boils')
    .option('--altitude-m <m>', 'metres above the sea', number('--altitude-m'), 0)
    .action(({ altitudeM }: { altitudeM: number }) => io.out(c(boilingPointC(altitudeM))));
  water
    .command('blend')
    .description('the temperature of waters mixed, or the shares for a temperature')
    .option('--of <g@C...>', 'waters to mix, like 48@18 217@96')
    .option('--mass-g <g>', 'how much is wanted', number('--mass-g'))
    .option('--to-c <c>', 'how hot it is to be', number('--to-c'))
    .option('--hot-c <c>', 'the hot water', number('--hot-c'))
    .option('--cold-c <c>', 'the cold water', number('--cold-c'))
    .action((asked: { of?: string[]; massG?: number; toC?: number; hotC?: number; coldC?: number }) => {
      if (asked.of) return io.out(c(blendedC(asked.of.map(readWater))));
      const { massG, toC, hotC, coldC } = asked;
      if (massG === undefined || toC === undefined || hotC === undefined || coldC === undefined)
        throw new Wrong('Give --of 48@18 217@96, or all of --mass-g, --to-c, --hot-c and --cold-c.');
      const { hotG, coldG } = blendFor(massG, toC, { hotC, coldC });
      io.out(`${hotG.toFixed(0)} g of ${hotC} °C and ${coldG.toFixed(0)} g of ${coldC} °C\n`);
    });
  water
    .command('cool')
    .description('boiled, wait until; the kettle’s own k from two readings')
    .requiredOption('--from-c <c>', 'now', number('--from-c'))
    .requiredOption('--to-c <c>', 'wanted', number('--to-c'))
    .option('--room-c <c>', 'the room', number('--room-c'), 21)
    .option('--k <k>', 'Newton’s k, per minute', number('--k'))
    .option('--apart-s <s>', 'the readings are so far apart: gives k instead', number('--apart-s'))
    .action((asked: { fromC: number; toC: number; roomC: number; k?: number; apartS?: number }) => {
      const { fromC, toC, roomC, k, apartS } = asked;
      if (apartS !== undefined)
        return io.out(`k = ${coolingPerMinFrom(fromC, toC, apartS, roomC).toFixed(4)} per minute\n`);
      const waitS = coolingTimeS({ fromC, roomC, ...(k === undefined ? {} : { perMin: k }) }, toC);
      io.out(`${showClock(Math.round(waitS))}\n`);
    });
  water
    .command('heat')
    .description('how long a kettle takes')
    .requiredOption('--mass-g <g>', 'water', number('--mass-g'))
    .requiredOption('--to-c <c>', 'wanted', number('--to-c'))
    .option('--from-c <c>', 'now', number('--from-c'), 20)
    .option('--power-w <w>', 'the kettle', number('--power-w'), 1200)
    .action(
      ({ massG, toC, fromC, powerW }: { massG: number; toC: number; fromC: number; powerW: number }) => {
        if (!(massG > 0)) throw new Wrong('--mass-g must be more than 0 g.');
        if (!(powerW > 0)) throw new Wrong('--power-w must be more than 0 W.');
        if (!(toC <= 100)) throw new Wrong('--to-c must be at most 100 °C: water gets no hotter.');
        io.out(`${showClock(Math.ceil(heatingTimeS(massG, toC, { powerW, filledAtC: fromC })))}\n`);
      },
    );
}

function readWater(text: string): Water {
  const [, mass, at] = /^([^@]+)@([^@]+)$/.exec(text) ?? [];
  if (mass === undefined || at === undefined)
    throw new Wrong(`“${text.slice(0, 20)}” must be grams@degrees, like 48@18.`);
  const [massG, atC] = [number(text)(mass), number(text)(at)];
  return { massG, atC };
}

function findRecipe(which: string, io: Io): Recipe {
  if (which.endsWith('.json')) {
    const found = readFile(which, io);
    if (found.length === 1) return found[0]!;
    throw new Wrong(`${which} holds ${found.length} recipes; give a file with one.`);
  }
  const recipe = SCHOOLS.find(({ id }) => id === which);
  if (recipe) return recipe;
  throw new Wrong(
    `There is no recipe “${which.slice(0, 48)}”; there are ${SCHOOLS.map(({ id }) => id).join(', ')}.`,
  );
}

function findBrewer(which: string, recipe: Recipe): Brewer {
  const brewer = brewerById(which);
  if (brewer?.method === recipe.method) return brewer;
  const fitting = BREWERS.filter(({ method }) => method === recipe.method).map(({ id }) => id);
  throw new Wrong(
    `${brewer ? `The ${brewer.name} does not brew ${recipe.id}` : `There is no brewer “${which.slice(0, 40)}”`}; give one of: ${fitting.join(', ')}.`,
  );
}

function readText(path: string, io: Io, most: number, what: string) {
  const file = (() => {
    try {
      return io.readFile(path);
    } catch (error) {
      throw new Wrong(`${path} cannot be read: ${(error as Error).message}`);
    }
  })();
  // What is far too large is not even read.
  if (file.size > most)
    throw new Wrong(`${path} is ${Math.round(file.size / 1e6)} MB; ${what} is at most ${most / 1e6} MB.`);
  return file;
}

function readFile(path: string, io: Io): Recipe[] {
  const file = readText(path, io, RECIPES_FILE_MAX, 'a file of recipes');
  const read = readRecipes(file.text());
  if (read.ok) return read.recipes;
  throw new Wrong(
    [`${path}:`, ...read.faults.map(({ field, reason }) => `  ${field}: ${reason}`)].join('\n'),
  );
}
