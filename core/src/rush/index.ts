export { liveDays } from './days';
export type { DaysPlan, Truth } from './days';
export { seededRandom } from '../plan';
export { liveShift } from './shift';
export type { Shift, ShiftPlan } from './shift';
export { BUSY_PEOPLE, workRush } from './people';
export type { Manners, Setting, World } from './people';
export { weighed } from './weighed';
export type { Poured } from './weighed';
