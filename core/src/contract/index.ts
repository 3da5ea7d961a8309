export {
  BATCH_MAX,
  barEventSchema,
  cupAskSchema,
  postEventsSchema,
  postedEventsSchema,
  postedSchema,
} from './events';
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
export type { LiveEvent, PublishedPlan, Recipes, SaveRecipe, Snapshot, StorageState } from './live';
export {
  brewPageSchema,
  dayQuerySchema,
  daySchema,
  handsSchema,
  houseSchema,
  learntQuerySchema,
  learntSchema,
} from './learnt';
export type { BrewPage, DayPage, HandsLearnt, House, Learnt } from './learnt';
export * from './imports';
export { ARCHIVE_FORMAT, archiveParts, archiveSchema } from './archive';
export { line, thingId } from './words';
export { oneLine, readStoredEvent } from './stored-event';
