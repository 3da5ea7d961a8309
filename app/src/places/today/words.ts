/**
 * The words of Today: every sentence that is read or heard there, so that another language is another file like this.
 */
import { plural, type Shown } from '../../ui/language';

export const WORDS = {
  today: 'Today',
  theDay: 'the day',
  theDaysPage: 'The day in figures',
  opening: 'Opening',
  closing: 'Closing',
  editTheList: 'Edit the list',
  allDone: 'All done.',
  doneOf: (done: Shown, all: Shown) => `${done} of ${all} done`,
  doneBy: (name: Shown, time: Shown) => `${name}, ${time}`,
  readyForTheRush: 'Ready for the rush',
  theNext: 'The next',
  hours: (hours: number) => `${hours} ${plural(hours, 'hour', 'hours')}`,
  expected: (cups: number, weeks: number) =>
    `About ${cups} ${plural(cups, 'cup', 'cups')}, as in the same hours of ${
      weeks === 1 ? 'the week' : `the ${weeks} weeks`
    } before.`,
  nothingKnown:
    'The log has no brews of these hours yet, so that nothing can be expected from it. What you get ready is counted all the same.',
  boats: (boats: number, cups: number) =>
    `${boats} ${plural(boats, 'boat', 'boats')} of the order feed, about ${cups} ${plural(cups, 'cup', 'cups')}.`,
  tinsOf: (coffee: Shown, dose: Shown) => `${coffee}, tins of ${dose}`,
  filtersOf: (method: Shown) => `Filters, ${method}`,
  kettles: 'Kettles filled',
  servers: 'Servers and cups warmed',
  readyOf: (ready: Shown, wanted: Shown) => `${ready} of ${wanted} ready`,
  readyMore: (ready: Shown) => `${ready} ready`,
  showAll: (count: Shown) => `Show all ${count}`,
  plusOneOf: (name: Shown) => `One more ready: ${name}`,
  allOf: (count: Shown) => `All ${count}`,
  allReady: (count: Shown, name: Shown) => `All ${count} ready: ${name}`,
  got: (name: Shown) => `Ready: ${name}`,
  stale: (count: number) =>
    `${count} ${plural(count, 'tin has', 'tins have')} stood for over four hours. Grind from fresh beans, and put ${plural(count, 'it', 'them')} back.`,
  putBack: 'Put back',
  putBackOf: (name: Shown) => `Put back: ${name}`,
  coveredTins:
    'Weigh beans into covered tins, and grind them as they are brewed. A cup with a tin needs no weighing.',
  handingOver: 'Handing over',
  runs: 'Runs now',
  nothingRuns: 'No brew runs and no cup waits.',
  runsLine: (badge: Shown, station: Shown, coffee: Shown) => `${badge} at ${station}: ${coffee}`,
  waiting: (cups: number) => `${cups} ${plural(cups, 'cup waits', 'cups wait')} for a brew.`,
  drifts: 'Drifts',
  driftLine: (coffee: Shown, recipe: Shown, by: Shown, slower: boolean) =>
    `${coffee}, ${recipe}: ${by} ${slower ? 'slower' : 'faster'} than before.`,
  nothingDrifts: 'No brew time has moved.',
  changed: 'Settings changed',
  changedLine: (time: Shown, settings: Shown) => `${time}: ${settings}`,
  nothingChanged: 'Nothing on the Bench was changed in the last two days.',
  care: 'Due',
  nothingDue: 'No cloth, paper or coffee is due.',
  clothDue: (cloth: Shown, due: Shown) => `${cloth}: ${due}`,
  papersLow: (method: Shown, sheets: Shown) => `Papers, ${method}: ${sheets} left.`,
  coffeeLow: (coffee: Shown, mass: Shown) => `${coffee}: ${mass} left.`,
  descale: (litres: Shown, after: Shown) =>
    `Descale the kettles: about ${litres} l of ${after} l went through.`,
  descaleNotYet: (litres: Shown, after: Shown) =>
    `Descaling is due after ${after} l; about ${litres} l went through.`,
  sign: 'I have taken over',
  signed: (name: Shown, time: Shown) => `Taken over by ${name}, ${time}.`,
  notSigned: 'Whoever takes the bar over reads this page and signs it.',
  somebody: 'somebody',
};
