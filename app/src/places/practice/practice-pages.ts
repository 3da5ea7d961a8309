/** Practice's pages, in one piece that comes by itself. */
export { PracticePage } from './practice-page';
export { PourPage } from './pour-page';
export { LabPage } from './lab-page';
export { RushPage } from './rush-page';
export { TrainerPage } from './trainer-page';
export { PracticeSheet } from './print-sheet';
