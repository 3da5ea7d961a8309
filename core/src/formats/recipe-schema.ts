/**
 * What a recipe must look like, wherever it comes from: a file, a QR code, the editor. What only makes sense or not as
 * a whole (pours that come to 140 %) is `checkRecipe`'s to say; `readRecipe` asks both.
 */
import { z } from 'zod';
import { POUR_HEIGHTS, TURNS, WALL_WAYS, WATER_PATHS, inTodaysWords } from '../pour';
import {
  BED_PREPARATIONS,
  METHOD_IDS,
  PHASES,
  GLOBE_WAYS,
  STEP_KINDS,
  START_CUES,
  TOOLS,
  WATER_MEANINGS,
  WISHES,
  checkRecipe,
  type Fault,
  type Recipe,
} from '../recipe';

/** Lower-case words with dashes; a step of a split pour may carry its part's number. */
const recipeId = z
  .string()
  .regex(
    /^[a-z0-9][a-z0-9-]{1,47}$/,
    'must be 2 to 48 lower-case letters, digits or dashes, like “cone-mornings”',
  );
const stepId = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,31}$/, 'must be 1 to 32 lower-case letters, digits or dashes, like “pour-2”');

/** One line of plain text. Markup is refused rather than cleaned: what is stored is what was meant. */
const line = (max: number) =>
  z
    .string('must be text')
    .trim()
    .min(1, 'must not be empty')
    .max(max, `must be at most ${max} characters`)
    .regex(/^[^\p{Cc}<>]*$/u, 'must be one line of plain text, without < or >');

const number = (min: number, max: number, unit: string) =>
  z
    .number(`must be a number of ${unit}`)
    .min(min, `must be at least ${min} ${unit}`)
    .max(max, `must be at most ${max} ${unit}`);
const seconds = (min = 0, max = 3600) => number(min, max, 's');
const temperature = number(0, 100, '°C');

const amount = z
  .union(
    [
      z.strictObject({ timesDose: number(0.1, 10, 'times the dose') }),
      z.strictObject({ toShare: number(0.01, 2, '(1 is all of the brew water)') }),
      z.strictObject({ restParts: z.int().min(1).max(20) }),
      z.strictObject({ g: number(1, 2000, 'g') }),
    ],
    'must be one of: {"timesDose": 2.4}, {"toShare": 0.45}, {"restParts": 4}, {"g": 60}',
  )
  .meta({ description: 'What a pour adds, or up to which share of the brew water it goes.' });

const pathPart = z.strictObject({
  path: z.enum(WATER_PATHS),
  height: z
    .enum(POUR_HEIGHTS)
    .optional()
    .meta({ description: 'low: 3 to 5 cm over the bed; high: 10 to 15 cm.' }),
  wall: z
    .enum(WALL_WAYS)
    .optional()
    .meta({ description: 'kept: half a centimetre inside; washed: once, at the end of the pour.' }),
  turn: z.enum(TURNS).optional().meta({ description: 'Left out: the way round that the person has.' }),
  toShare: number(0.01, 1, '(1 is all of the brew water)')
    .optional()
    .meta({ description: 'Up to this share of the brew water; the last part has none.' }),
});

const flow = number(0.5, 40, 'g a second');
const pour = z.strictObject({
  amount,
  flowGPerS: flow,
  opening: z
    .strictObject({
      toShare: number(0.01, 1, '(1 is all of the brew water)'),
      flowGPerS: flow,
      cue: line(60).optional(),
    })
    .optional()
    .meta({ description: 'A first part that is poured otherwise.' }),
  waterC: temperature
    .optional()
    .meta({ description: 'Where this pour has a water of its own, like a cool bloom.' }),
  paths: z
    .array(pathPart)
    .min(1, 'needs at least one part')
    .max(6, 'takes at most 6 parts')
    .optional()
    .meta({ description: 'Where the water goes, part by part.' }),
});

const step = z.strictObject({
  id: stepId,
  kind: z.enum(STEP_KINDS),
  name: line(60),
  phase: z.enum(PHASES),
  attended: z.boolean().meta({ description: 'Needs a pair of hands.' }),
  start: z.union(
    [
      z.strictObject({ atS: seconds() }),
      z.strictObject({ afterS: seconds() }),
      z.strictObject({ when: z.enum(START_CUES), aboutS: seconds() }),
    ],
    'must be {"atS": 40}, a reading of the timer; {"afterS": 0}, so long after the step before; or {"when": "stream thins", "aboutS": 40}, what a pour waits for and when it is expected',
  ),
  lasts: z.union(
    [
      z.strictObject({ s: seconds(1) }),
      z.strictObject({ sPerDoseG: number(0.05, 20, 's for each gram of dose') }),
      z.strictObject({ untilS: seconds(1) }),
      z.strictObject({ hotS: seconds(1), coldS: seconds(1) }),
      z.strictObject({ sAtRef: seconds(1) }),
      z.strictObject({ globe: z.enum(GLOBE_WAYS) }),
      z.enum(['pour', 'heating', 'drawdown']),
    ],
    'must be {"s": 4}, {"sPerDoseG": 1.2}, {"untilS": 38}, {"hotS": 110, "coldS": 330}, {"sAtRef": 180}, {"globe": "near boiling"}, "pour", "heating" or "drawdown"',
  ),
  end: z.union(
    [
      z.strictObject({ by: z.literal('clock') }),
      z.strictObject({ by: z.literal('weight') }),
      z.strictObject({ by: z.literal('cue'), cue: line(60) }),
    ],
    'must be {"by": "clock"}, {"by": "weight"} or {"by": "cue", "cue": "what is seen or heard"}',
  ),
  pour: pour.optional(),
  window: z
    .strictObject({ earlyS: seconds(), lateS: seconds().nullable(), penalty: number(0, 100, 'a second') })
    .optional()
    .meta({ description: 'How far the start may move, and what a second costs a plan.' }),
  cueWindow: z.strictObject({ earlyS: seconds(), lateS: seconds() }).optional(),
  stirs: z.int().min(1).max(60).optional(),
  checkC: z.strictObject({ from: temperature, to: temperature }).optional(),
  anchor: z
    .enum(['start', 'end'])
    .optional()
    .meta({ description: 'The timer starts when this step starts, or ends.' }),
  hint: line(160).optional(),
  mistake: line(160).optional(),
});

export const recipeSchema = z.strictObject({
  id: recipeId,
  version: z.int('must be a whole number').min(1, 'counts from 1').max(100_000),
  method: z.enum(METHOD_IDS),
  name: line(60),
  why: line(200),
  otherwise: line(200).optional(),
  suits: z.array(z.enum(WISHES)).max(WISHES.length),
  filter: line(80),
  bed: z.enum(BED_PREPARATIONS),
  refDoseG: number(3, 120, 'g'),
  ratio: number(6, 25, 'g of water to a gram of coffee'),
  bypassTimesDose: number(0, 10, 'times the dose'),
  iceTimesDose: number(0.5, 15, 'times the dose')
    .optional()
    .meta({ description: 'Ice that every cup of it has; ratio and grind are meant with it.' }),
  servings: z
    .int('must be a whole number')
    .min(1)
    .max(12)
    .optional()
    .meta({ description: 'How many cups it makes at its reference dose.' }),
  retentionGPerG: number(0, 5, 'g each gram').optional(),
  grindBand: number(0, 100, '(0 coarse, 100 extra fine)'),
  // Kept for a medium roast: for a dark one that is brewed near boiling it lies above that, and no card asks for more than there is.
  waterC: number(0, 106, '°C'),
  waterIs: z.enum(WATER_MEANINGS),
  endWindowS: z.strictObject({ from: seconds(1), to: seconds(1, 7200) }),
  steps: z.array(step).min(1, 'needs at least one step').max(60, 'takes at most 60 steps'),
  holds: z
    .array(z.strictObject({ tool: z.enum(TOOLS), from: stepId, to: stepId }))
    .max(12, 'takes at most 12 holds'),
  cautions: z.array(line(400)).max(12, 'takes at most 12 cautions'),
});

/** The published JSON Schema of one recipe. */
export const recipeJsonSchema = () => ({
  ...z.toJSONSchema(recipeSchema, { io: 'input' }),
  $id: 'urn:even-kettle:schema:recipe@3',
  title: 'Even Kettle recipe',
});

export type ReadRecipe = { ok: true; recipe: Recipe } | { ok: false; faults: Fault[] };

/** A recipe out of anything, or every fault by its field. */
export function readRecipe(value: unknown): ReadRecipe {
  const shaped = recipeSchema.safeParse(inTodaysWords(value));
  if (!shaped.success) return { ok: false, faults: shaped.error.issues.flatMap(faultsOfIssue) };
  const recipe = withoutUndefined(shaped.data) as Recipe;
  const faults = checkRecipe(recipe);
  return faults.length === 0 ? { ok: true, recipe } : { ok: false, faults };
}

function faultsOfIssue(issue: z.core.$ZodIssue): Fault[] {
  const path = issue.path.join('.');
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => ({
      field: path ? `${path}.${key.slice(0, 40)}` : key.slice(0, 40),
      reason: 'is not part of a recipe.',
    }));
  return [{ field: path || 'recipe', reason: issue.message }];
}

/** Optional fields that were left out are not there at all, so that two equal recipes are equal. */
const withoutUndefined = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
