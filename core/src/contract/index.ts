export { BATCH_MAX, barEventSchema, cupAskSchema, postEventsSchema, postedSchema } from './events';
export {
  barChangeSchema,
  barSchema,
  brewRecordSchema,
  clockSchema,
  healthSchema,
  logPageSchema,
  logQuerySchema,
  problemSchema,
} from './bar';
export type { Bar, BarChange, BrewRecord, Coffee, LogPage, Person, Problem } from './bar';
export * from './devices';
export { plannedSchema, recipesSchema, saveRecipeSchema, snapshotSchema } from './live';
export type { LiveEvent, PublishedPlan, Recipes, SaveRecipe, Snapshot } from './live';
