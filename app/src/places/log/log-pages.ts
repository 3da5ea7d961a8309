/** The Log's pages, in one piece that comes by itself. */
export { LogPlace } from './log-place';
export { BrewPage } from './brew-page';
export { RunPage } from './run-page';
export { DayPage } from './day-page';
export { HousePage } from './house-page';
export { HandsPage } from './hands-page';
export { FilesPage } from './files-page';
export { RoundPage } from './round-page';
