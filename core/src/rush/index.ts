export { seededRandom } from '../plan';
export { liveShift } from './shift';
export type { Shift, ShiftPlan } from './shift';
