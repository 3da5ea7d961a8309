export { habitOf } from './habits';
export type { Habit } from './habits';
