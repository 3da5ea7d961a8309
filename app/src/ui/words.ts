/**
 * The words of the parts of the interface: every sentence that is read or heard there, so that another language is another file like this.
 */
import type { Shown } from './language';

export const WORDS = {
  oneLess: (name: string) => `One less: ${name}`,
  oneMore: (name: string) => `One more: ${name}`,
  cancel: 'Cancel',
  chooseInACalendar: (label: Shown) => `Choose in a calendar: ${label}`,
  chosen: (label: Shown) => `${label}, chosen`,
  clearTheSearch: 'Clear the search',
  closeTheList: 'Close the list',
  copyWhatHappened: 'Copy what happened',
  discard: 'Discard',
  discardWhatYouChanged: 'Discard what you changed?',
  everyTapKept: (message: Shown) => `Every tap so far is kept. ${message}`,
  keepEditing: 'Keep editing',
  loading: (what: Shown) => `Loading ${what}…`,
  nextPage: 'Next page',
  nothingChosen: 'nothing chosen',
  of: (pageIndex: Shown, pages: Shown) => `${pageIndex} of ${pages}`,
  ofForPart: (part: Shown, label: Shown) => `${part} of ${label}`,
  order: (letter: Shown) => `Order ${letter}`,
  previousPage: 'Previous page',
  retry: 'Retry',
  search: 'Search',
  sortBy: (name: Shown) => `Sort by ${name}`,
  cannotShowNow: (what: Shown) => `This page cannot show ${what} just now.`,
  readChartHint: 'Touch the chart, or use the arrow keys, to read it.',
  typeADayLike: (part: Shown) => `Type a day like ${part}.`,
};
