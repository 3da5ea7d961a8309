export { liveDays } from './days';
export type { DaysPlan, TrueBrewing } from './days';
export { seededRandom } from '../plan';
export { liveShift } from './shift';
export type { SimulatedShift, ShiftPlan } from './shift';
export { BUSY_PEOPLE, workRush } from './people';
export type { PeopleModel, Setting, World } from './people';
export { weighed } from './weighed';
export type { Poured } from './weighed';
