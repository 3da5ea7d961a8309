/** Parts that come as scripts of their own, when they are first shown. */
export const loadCalendar = () => import('./calendar');
export const loadSortedTable = () => import('./sorted-table');
