/**
 * What a page loads, and what the live stream sends. The schemas describe the shapes for readers of the API; the types are
 * the core's own, because server and app share them.
 */
import { z } from 'zod';
import type { BarEvent, BarState } from '../brew';
import type { PlanMove } from '../plan';
import type { Recipe } from '../recipe';
import { planSchema, recipeSchema } from '../formats';
import { meSchema } from './access';
import { barSchema, clockSchema } from './bar';

/** A published plan: the number of the last event that it knows, and how often the bar has been planned. */
const publishedPlanSchema = z.object({
  version: z.number().int(),
  seq: z.number().int(),
  plan: planSchema.nullable(),
  /** Which of the next steps moved, and why the bar was planned again. */
  moves: z.array(
    z.object({
      step: z.string(),
      fromS: z.int().nullable(),
      toS: z.int(),
      relaxed: z.boolean(),
      pairs: z
        .object({ from: z.int(), to: z.int() })
        .optional()
        .meta({ description: 'A card counted it down already: the pair that it goes from and to.' }),
    }),
  ) satisfies z.ZodType<PlanMove[]>,
  because: z.enum(['event', 'order', 'late', 'bench', 'better']),
  unplannable: z.array(z.object({ cupId: z.string(), reason: z.string() })),
  rough: z.record(z.string(), z.number()).meta({
    description:
      'Orders that wait behind those that are planned: about when each is out, seconds of bar time.',
  }),
});
/** `GET /api/plan`. */
export const plannedSchema = publishedPlanSchema.partial().extend({
  calm: z.object({
    plans: z.int().meta({ description: 'Plans published since the server started.' }),
    changes: z.int().meta({ description: 'Of them those that moved a step of the next minute and a half.' }),
  }),
});
export type PublishedPlan = z.infer<typeof publishedPlanSchema>;

/** Free space on the disk of the log. */
export const storageSchema = z.object({
  level: z.enum(['enough', 'low', 'full']),
  freeMb: z.number().nullable().meta({ description: 'Null where the system does not say.' }),
  copyMs: z.number().nullable().optional().meta({
    description: 'When the latest good copy was made, real milliseconds; null where there is none.',
  }),
  copyDue: z.boolean().optional().meta({ description: 'There is no good copy of the last three days.' }),
});
export type StorageState = z.infer<typeof storageSchema>;

export const snapshotSchema = z.object({
  seq: z.number().int().meta({ description: 'Place in the log of the latest event in this state.' }),
  state: z
    .looseObject({
      orders: z.record(z.string(), z.looseObject({ id: z.string() })),
      brews: z.record(z.string(), z.looseObject({ id: z.string() })),
      lastBadge: z.number().int(),
    })
    .meta({ description: 'Orders and brews that are open, or were closed in the last hour.' }),
  bar: barSchema,
  recipes: z.array(recipeSchema),
  planned: publishedPlanSchema.nullable(),
  storage: storageSchema,
  contract: z.int().meta({ description: 'What a page must know to show all of it: it rises with the app.' }),
  me: meSchema.optional().meta({ description: 'Who the server takes the asking device for.' }),
  ...clockSchema.shape,
});
/** `GET /api/state`. */
export type Snapshot = Omit<z.infer<typeof snapshotSchema>, 'state' | 'recipes'> & {
  state: BarState;
  recipes: Recipe[];
};

export const recipesSchema = z.object({ recipes: z.array(recipeSchema) });
/** `GET /api/recipes`, and the live stream's `recipes`: every version saved on this bar, so that old brews find theirs; those that ship are known to the app. */
export type Recipes = { recipes: Recipe[] };

/** `POST /api/recipes`: a new recipe, or the next version of one. */
export const saveRecipeSchema = z.strictObject({
  recipe: recipeSchema,
  basedOn: z.int().min(1).nullable().meta({
    description:
      'The version that was edited; null for a recipe that is new here. Refused where there is a later one.',
  }),
});
export type SaveRecipe = { recipe: Recipe; basedOn: number | null };

/** One event of the log, as it is broadcast; its number in the log is the stream's event id. */
export type LiveEvent = { seq: number; event: BarEvent };
