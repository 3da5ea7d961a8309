/**
 * The words of what several places show: every sentence that is read or heard there, so that another language is another file like this.
 */
import type { Shown } from '../ui/language';

export const WORDS = {
  couldNotLoad: (charAt: Shown, what: Shown) => `${charAt}${what} could not load`,
  log: 'Log',
  notInTheLog: 'Not in the log',
  serverUnreachable: 'The server cannot be reached just now. What was brewed is kept.',
  serverAway:
    'The server is away. What is shown was read before; what is brewed meanwhile comes into the log when it is back.',
  tryAgain: 'Try again',
  done: 'Done',
  noBrewerTakesIt: 'No brewer takes a cup of this recipe that could be shown.',
  pace: 'Pace',
  pause: 'Pause',
  nextStep: 'Next',
  nextStepOfRun: 'Next step',
  thatWasAll: 'That was all',
  showItAgain: 'Show it again',
  backToTheRecipe: 'Back to the recipe',
  kettle: 'Kettle',
  taskNames: {
    water: 'Water for the kettles is fresh, burners and gas are looked at',
    rinse: 'Grinders are purged, the first dose is thrown away',
    stock: 'Coffees and papers are counted',
    cloths: 'Cloths are boiled and lie cold and wet',
    glass: 'Siphon globes are looked at for cracks',
    scales: 'Scales are levelled and weigh true',
    cups: 'Cups and servers are clean and warm',
    menu: 'The menu is right: what is sold out is off',
    kettles: 'Kettles are emptied, unplugged, and left open',
    gas: 'Flames are out, gas is off, burners are cold',
    grinders: 'Grinders are brushed',
    keepCloths: 'Cloths are rinsed and kept cold and wet',
    presses: 'Presses are taken apart, washed, and dry',
    drain: 'Drains and trays are rinsed, towels are hung up',
    milk: 'Milk is cold and apart, with its allergens marked',
    descale: 'Kettles are descaled',
  },
  undo: (min: Shown) => `Undo ${min}`,
  undoForLabel: (label: Shown) => `Undo ${label}`,
  sample: (letter: string) => `Sample ${letter}`,
  blindSample: 'Sample: its letter is shown when it is handed over',
  allergy: (what: Shown) => `Allergy: ${what}`,
  decaf: 'DECAF',
} as const;
