export { brewCard, equalShares, DEFAULT_PLACE } from './card';
export type { BrewCard, Place } from './card';
export type { CardLag, CardStep } from './lay-out';
export { ADDITIONS, CUP_RANGE_ML, DOSE_RANGE_G, RATIO_RANGE } from './solve';
export type { Addition, Ask, Leading } from './solve';
export { ROAST_LEVELS } from './temperature';
export type { RoastLevel } from './temperature';
export { BREWERS, brewerById } from './brewer';
export type { Brewer } from './brewer';
export { capacityOf, fitsBrewer, wayOutInWords } from './capacity';
export type { Capacity, WayOut } from './capacity';
export { bandInWords, feelOfBand, calibrationFault, grindSetting } from './grind';
export type { CalibrationPoint, Grinder } from './grind';
export { USUAL_KEEPS_G, USUAL_PURGE_G, beansToWeighG, doseToFollowG } from './beans';
export { METHODS } from './method';
export { PAPERS, PAPER_METHODS, takesPaper } from './paper';
export type { PaperMethod } from './paper';
export type { Method } from './method';
export {
  BED_PREPARATIONS,
  METHOD_IDS,
  PHASES,
  RecipeError,
  GLOBE_WAYS,
  STEP_KINDS,
  TOOLS,
  WATER_MEANINGS,
  WISHES,
} from './recipe';
export type {
  Amount,
  Hold,
  MethodId,
  Phase,
  Pour,
  Recipe,
  RecipeRef,
  RecipeStep,
  StepEnd,
  StepKind,
  StepLength,
  StepStart,
  Tool,
  Wish,
} from './recipe';
export { bookOf, latestOf } from './book';
export { fillOf } from './prep';
export { roleOf } from './role';
export type { StepRole } from './role';
export { round } from './round';
export type { RecipeBook } from './book';
export { SCHOOLS } from './schools';
export { methodTable, suggest } from './compare';
export type { MethodRow, Suggestion } from './compare';
export { WHY_OF, why } from './why';
export type { Derivation, DerivedFrom, Source, WhyOf } from './why';
export { checkRecipe } from './check';
export type { Fault } from './check';
export { changesBetween } from './versions';
export type { Change } from './versions';
export { CAUTIONS, cautionFor } from './caution';
export type { CautionId } from './caution';
export { tuned } from './tuned';
export type { Tuning } from './tuned';
