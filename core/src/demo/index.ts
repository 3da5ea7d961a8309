export { lanternPier, shiftUpTo, twoWeeksBefore, upperBasin } from './lantern-pier';
