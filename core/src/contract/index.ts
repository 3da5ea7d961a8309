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
export type { Bar, BarChange, BrewRecord, Cloth, Coffee, LogPage, LogQuery, Person, Problem } from './bar';
export * from './devices';
export { plannedSchema, recipesSchema, saveRecipeSchema, snapshotSchema } from './live';
export type { LiveEvent, PublishedPlan, Recipes, SaveRecipe, Snapshot } from './live';
export {
  brewPageSchema,
  dayQuerySchema,
  daySchema,
  houseSchema,
  learntQuerySchema,
  learntSchema,
} from './learnt';
export type { BrewPage, DayPage, House, Learnt } from './learnt';
export { ARCHIVE_FORMAT, archiveSchema } from './archive';
export type { Archive } from './archive';
