export { ALTITUDE_RANGE_M, airPressurePa, boilingPointC } from './boiling';
export { blendFor, blendedC } from './blend';
export type { Water } from './blend';
export { waterDensityGPerMl } from './density';
export {
  CUP_WARMING_G,
  COOLING_AT_G,
  DEFAULT_COOLING_PER_MIN,
  cooledToC,
  coolingPerMinFrom,
  coolingTimeS,
  fillsOf,
  fillsOfBefore,
  heatingTimeS,
  kettleFillG,
  kettleLimitG,
} from './kettle';
export type { Cooling, Fill, Fills, HotWater, Kettle } from './kettle';
export { emptiedBy, filled, isHeating, kettleAfter } from './kettle-model';
export type { KettleModel, KettleNature } from './kettle-model';
export { nearBoilingS, riseS } from './globe';
export { ICED_C, iceShare } from './ice';
