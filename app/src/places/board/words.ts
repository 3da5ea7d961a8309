/** The words of the board: every sentence that is read there, so that another language is another file like this. */
import type { Shown } from '../../ui/language';

export const WORDS = {
  board: 'Board',
  readyNow: 'Ready now',
  toCome: 'Being made',
  inLine: 'in line',
  someReady: (ready: number, cups: number) => `${ready} of ${cups} ready`,
  nothingReady: 'Nothing stands ready just now.',
  nothingToCome: 'No order is open.',
  noNews: (time: Shown) => `No news from the bar since ${time}.`,
  further: (count: number) => `and ${count} more`,
  looks: { auto: 'as the device', day: 'day', evening: 'evening', sun: 'strong sun' },
  anotherLook: (look: Shown) => `Change the look to ${look}`,
  loading: 'The board comes as soon as the server answers.',
};
