/** The parts that come later, as the tests have them, which load no scripts of their own. */
import * as calendar from '../ui/calendar';
import * as sortedTable from '../ui/sorted-table';

export const loadCalendar = () => Promise.resolve(calendar);
export const loadSortedTable = () => Promise.resolve(sortedTable);
