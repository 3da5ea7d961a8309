export { ALTITUDE_RANGE_M, airPressurePa, boilingPointC } from './boiling';
export { heatingTimeS, kettleFillG } from './kettle';
export type { Kettle } from './kettle';
