export { liveShift, seededRandom } from './shift';
export type { Shift, ShiftPlan } from './shift';
