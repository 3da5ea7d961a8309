export { brewCard, equalShares, DEFAULT_PLACE } from './card';
export type { BrewCard, BrewSite } from './card';
export type { CardLag, CardPath, CardStep } from './lay-out';
export { ADDITIONS, CUP_RANGE_ML, CUPS_RANGE, DOSE_RANGE_G, RATIO_RANGE } from './solve';
export type { Addition, Ask, Leading } from './solve';
export { ROAST_LEVELS } from './temperature';
export type { RoastLevel } from './temperature';
export { capacityOf, fitsBrewer, wayOutInWords } from './capacity';
export type { Capacity, WayOut } from './capacity';
export { bandInWords, feelOfBand, calibrationFault, grindSetting } from './grind';
export type { CalibrationPoint, Grinder } from './grind';
export { USUAL_KEEPS_G, USUAL_PURGE_G, beansToWeighG, doseToFollowG } from './beans';
export { BREWERS, METHODS, SCHOOLS, brewerById } from './methods';
export type { Brewer } from './methods/brewer';
export { little, nothing, costsTheCup } from './methods/method';
export type { Help, LateMoment, LatePrice, Method } from './methods/method';
export { PAPER_METHODS, takesPaper } from './paper';
export {
  BED_PREPARATIONS,
  METHOD_IDS,
  PHASES,
  RecipeError,
  GLOBE_WAYS,
  START_CUES,
  STEP_KINDS,
  TOOLS,
  WATER_MEANINGS,
  WISHES,
  clockStartS,
} from './recipe';
export type {
  Amount,
  BedPreparation,
  Hold,
  MethodId,
  Phase,
  Pour,
  PourPart,
  Recipe,
  RecipeRef,
  RecipeStep,
  StartCue,
  StepEnd,
  StepKind,
  StepLength,
  StepStart,
  Tool,
  Wish,
} from './recipe';
export { bookOf, everyVersion, latestOf, withSaved } from './book';
export { fillOf } from './prep';
export { roleOf } from './role';
export type { StepRole } from './role';
export { round } from './round';
export type { RecipeBook } from './book';
export { CARD_VERSION } from './card-version';
export { methodTable, suggest } from './compare';
export type { MethodRow, Suggestion } from './compare';
export { WHY_OF, why } from './why';
export type { Derivation, DerivedFrom, Source, WhyOf } from './why';
export { checkRecipe } from './check';
export type { Fault } from './check';
export { areBrewedAlike, changesBetween } from './versions';
export type { Change } from './versions';
export { cautionFor, roastCaution } from './caution';
export { CAUTIONS } from './methods/caution-words';
export type { CautionId } from './methods/caution-words';
export { tuned } from './tuned';
export type { Tuning } from './tuned';
export { PLAIN_FILTERS, withFilter } from './filter';
export type { PlainFilter } from './filter';
export { recipeFromPlain } from './plain';
export type { FromPlain, PlainAmount, PlainPour, PlainRecipe, PlainStart, PlainStir } from './plain';
export { isFromTin, withoutStep } from './variants';
export { uncertaintiesOf } from './uncertain';
export type { Uncertainty } from './uncertain';
