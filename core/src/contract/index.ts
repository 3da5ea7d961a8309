export { BATCH_MAX, barEventSchema, tasteSchema } from './events';
export { cupAskSchema } from './order-events';
export type { Feed, OutsideOrder } from './outside';
export type { TakeAdvice } from './events';
export { NO_SUCH_BREWER, barChangeSchema, barSchema, brewRecordSchema, problemSchema } from './bar';
export type {
  Bar,
  BarChange,
  BrewRecord,
  Cloth,
  Coffee,
  LogFileQuery,
  LogPage,
  LogQuery,
  Person,
  Problem,
} from './bar';
export * from './devices';
export type { LiveEvent, PublishedPlan, Recipes, SaveRecipe, Snapshot, StorageState } from './live';
export type { BrewPage, DayPage, HandsLearnt, House, Learnt, Today } from './learnt';
export * from './imports';
export { labFileSchema } from './lab';
export type { LabFile } from './lab';
export { PRACTICE_MAX, practiceItemSchema } from './practice';
export type { PracticeItem } from './practice';
export { ANSWER_MAX } from './answer-max';
export { ARCHIVE_FORMAT, archiveParts, archiveSchema } from './archive';
export type { Unreadable } from './archive';
export { line, thingId } from './words';
export { oneLine, readStoredEvent, upgradedEvent } from './stored-event';
