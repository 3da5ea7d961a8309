/**
 * The words of what surrounds the places: every sentence that is read or heard there, so that another language is another file like this.
 */
import { plural, type Shown } from '../ui/language';
import { WORDS as PARTS } from '../parts/words';

export const WORDS = {
  allergy: PARTS.allergy,
  practice: 'Practice',
  copyIsOld:
    'There is no copy of the bar from the last three days. Look at the server’s disk, and make a copy on the Bench, under Copies.',
  theBoard: 'the board',
  pairing: 'pairing',
  barIsMadeUp: 'This bar is made up. Nothing here is stored.',
  leaveIt: 'Leave',
  leaveMadeUpBar: 'Leave the made-up bar',
  allHands: 'All hands',
  asleft: 'AsLeft',
  bar: 'Bar',
  bench: 'Bench',
  cancelCupOf: (letter: Shown, coffee: Shown) => `Cancel the cup of order ${letter}, ${coffee}`,
  cancelThisCup: 'Cancel this cup',
  cannotBeBrewed: (cup: Shown) => `${cup} cannot be brewed.`,
  unreachableHint:
    'Check that it runs and that this device is on its network. This page goes on by itself as soon as it answers; nothing tapped is lost.',
  close: 'Close',
  closeThisNote: 'Close this note',
  cupCancelled: 'Cup cancelled',
  evenKettle: 'Even Kettle',
  guestsDue: (orders: number, since: Shown, at: Shown) =>
    `On ${at}, names, allergies and wishes of guests are removed from ${orders} earlier ${plural(orders, 'order', 'orders')}, taken since ${since}. What was brewed stays. To keep them longer, set the days on the Bench under Guests before then.`,
  goToTheBar: (name: Shown, item: Shown, when: Shown) => `${name}: ${item}, ${when}. Go to the Bar`,
  inIt: (leftMs: Shown) => `in ${leftMs}`,
  keys: 'Keys',
  load: 'Load',
  loadTheNewVersion: 'Load the new version',
  log: 'Log',
  newOrder: 'New order',
  noSuchPlace: 'No such page',
  openTheBench: 'Open the Bench',
  orders: 'Orders',
  places: 'Places',
  recipes: 'Recipes',
  serverAwayKeptHere: (waiting: Shown) => `server away, ${waiting} kept here`,
  serverAwayTapsKept: 'server away, taps are kept',
  station: 'Station',
  serverUnreachable: 'The bar’s server cannot be reached',
  markOfBar: 'the mark of the Bar',
  newVersion: 'There is a new version of the app.',
  noSuchPage: 'There is no page at this address.',
  diskAlmostFull: (freeMb: Shown) =>
    `The server’s disk is almost full: ${freeMb} MB are left. Make room on the server soon, or taps can no longer be stored.`,
  diskFull:
    'The server’s disk is full. Taps are kept on this device until there is room; make room on the server now.',
  thisAppIsOlder:
    'This app is older than its server. It may not show everything that an order asks, such as an allergy. The new one loads at the next pause.',
  thisPlace: 'this place',
  toTheBar: 'To the bar',
  whatHandsMustDo: 'what the hands must do',
};
