/**
 * The words of Practice: every sentence that is read or heard there, so that another language is another file like this.
 */
import type { Measure } from '@even-kettle/core/practice';
import { plural, type Shown } from '../../ui/language';

export const WORDS = {
  practice: 'Practice',
  bench: 'Bench',
  thePractice: 'practice',
  back: 'Practice',
  intro:
    'Practise here without coffee, guests or haste. Nothing you do on this page touches the bar: its orders, its log and its stock stay as they are.',
  pourDrill: 'Pour drill',
  pourDrillIs: 'Pour a recipe, or train one thing: an even flow, a clean stop, a bloom, a beat.',
  start: 'Start',
  whatToPractise: 'What to practise',
  drills: {
    recipe: 'A whole recipe',
    hold: 'Hold 4 g/s',
    stop: 'Stop on 50',
    bloom: 'Wet every ground in 8 s',
    beat: 'Pulses on the beat',
  },
  drillIs: {
    recipe: 'All pours of a recipe, by its own clock, paths and targets.',
    hold: 'Pour 100 g at 4 g/s, as evenly as you can.',
    stop: 'Three pours of 50 g each. Stop so that the scale comes to rest on 50, 100 and 150.',
    bloom: 'A bloom of 44 g on 18 g of coffee. No dry clump should be left after 8 seconds.',
    beat: 'Six pulses of 20 g, one every 8 seconds. A tick sounds every 2 seconds, and a higher one when a pulse begins.',
  },
  recipe: 'Recipe',
  cup: 'Cup',
  who: 'Who practises',
  nobody: 'Nobody in particular',
  pourOn: 'Pour on',
  modelledBed: 'The modelled bed',
  scaleAt: (station: Shown) => `The scale at ${station}`,
  tiltWith: 'Tilt the kettle with',
  tiltBy: {
    thumb: 'The other thumb',
    thumbHint: 'or the wheel, or the arrow keys',
    same: 'The same finger',
    sameHint: 'drawn down',
  },
  follow: 'Follow',
  ghosts: {
    path: "The recipe's path",
    trainer: "A trainer's pour",
    best: 'My best',
    nothing: 'Nothing',
  },
  howTo:
    'Touch the bed where the water should fall, and move the finger along the path. The other thumb draws the kettle down: the further down, the more it pours. Water runs from the dashed mark on; it sinks as the kettle empties. A full kettle follows the hand more slowly than an empty one.',
  howToMouse: 'With a mouse, hold the button over the bed, and tilt with the wheel or the arrow keys.',
  teachingModel:
    'The bed is a teaching model. It shows what good and bad pours do, and does not replace the cup.',
  startPouring: 'Start pouring',
  flow: (flow: Shown) => `${flow} g/s`,
  startsWithTheWater: 'The clock starts with the first water.',
  ahead: (sign: number, by: Shown) =>
    sign === 0 ? 'On the line' : sign > 0 ? `${by} ahead` : `${by} behind`,
  lineOfWeight: 'Weight over time: what the drill asks for, and what the scale reads',
  bedFromAbove: 'The bed from above, with where the water falls',
  bedToPourOn: 'The bed. Hold to pour where you point.',
  tilt: 'Tilt of the kettle',
  tiltShort: 'Tilt',
  spoutHeight: 'Height of the spout',
  low: 'Low',
  high: 'High',
  stopThisTry: 'Stop this try',
  pourNumber: (n: number, of: number) => (of === 1 ? 'Pour' : `Pour ${n} of ${of}`),
  pourTo: (name: Shown, target: Shown, flow: Shown) => `${name}: to ${target} at ${flow} g/s`,
  pourIn: (name: Shown, seconds: Shown) => `${name} in ${seconds} s`,
  wait: (next: Shown) => `Wait. ${next}`,
  nextAt: (clock: Shown) => `The next pour is at ${clock}.`,
  thatIsAll: 'That is all. Let it drain.',
  score: 'Score',
  of100: 'of 100',
  tryAgain: 'Try again',
  otherDrill: 'Another drill',
  keepOnRecord: 'Keep on the record',
  keptOnRecord: 'This try is on the record.',
  onlyHere: 'Tries stay on this device unless you keep them on the record, where your trainer sees them.',
  chooseWho: 'Choose who practises to keep a try on the record.',
  useAsTrainers: 'Let others follow this pour',
  othersFollow: 'Others can now follow this pour.',
  couldNotKeep: 'The server could not be asked. Nothing was kept; try again when it is there.',
  measured: 'What was measured',
  measure: {
    lineG: 'Off the line',
    overshootG: 'Off the targets',
    flowOff: 'Flow unsteady by',
    uneven: 'Unevenness of the wetting',
    pathOff: 'Water off the path',
    wallShare: 'Water along the wall',
    dryShare: 'Left in dry clumps',
    rhythmS: 'Pours off their times',
  } satisfies Record<Measure, string>,
  notKnown: 'not seen by a scale',
  seconds: (s: Shown) => `${s} s`,
  percent: (share: Shown) => `${share} %`,
  variation: (share: Shown) => `${share} % of its mean`,
  dryAt: (clock: Shown, from: Shown, to: Shown, isIn: boolean) =>
    `The bed would be dry at ${clock}, ${isIn ? 'within' : 'outside'} the recipe’s window of ${from} to ${to}.`,
  next: 'For the next try',
  nothingToChange: 'Nothing cost you much. Pour it again, and see whether it stays so.',
  /** One thing to change, and why. `over` and the like are what the tries lean to. */
  advise: {
    lineG: (fast: boolean) =>
      fast
        ? 'Pour more slowly and stay on the line: water that comes early drains before the rest, and is lost to the later pours.'
        : 'Keep up with the line: a bed that runs low between pours cools, and drains unevenly.',
    overshootG: (over: boolean, by: Shown) =>
      over
        ? `Stand the kettle up earlier. Your pours ended ${by} over on average, because the spout and the scale lag behind the hand.`
        : `Go on a little longer, and slow down before the end. Your pours stopped ${by} short on average.`,
    flowOff: (fast: boolean) =>
      fast
        ? 'Tilt a little less and hold it: the water ran faster than the recipe asks, and a strong stream digs into the bed.'
        : 'Hold one tilt, and let the wrist rest: the flow went up and down, and each surge stirs the bed.',
    uneven:
      'Move on at an even pace, and turn before the edge: places that get twice the water give bitter cups, and dry ones sour.',
    pathOff: 'Follow the path more closely: where the water falls decides which grounds are washed out.',
    wallShare:
      'Stay half a centimetre off the wall: water on the paper runs past the coffee, and makes the cup thin.',
    dryShare: 'Reach every ground in the first pour: a clump that stays dry gives nothing, and bursts later.',
    rhythmS: (late: boolean, by: Shown) =>
      late
        ? `Begin the next pour sooner. You were ${by} late on average, and the bed ran lower than it should.`
        : `Wait for the pour’s time. You were ${by} early on average, so that the water stood higher than it should.`,
  },
  tries: 'Your tries',
  triesChart: (count: number, best: Shown) =>
    `Scores of ${count} ${plural(count, 'try', 'tries')} one after another; the best is ${best}`,
  triesRead: 'Scores, try by try',
  tryIs: (n: number, score: Shown) => `Try ${n}: ${score}`,
  noTrainersPour: 'No trainer has left a pour for this drill yet.',
  noBest: 'You have no earlier try of this drill on this device.',
  noPours: 'The water of this recipe is weighed in before, so that there is no pour to practise.',
  pourOnTheScale: 'Put a vessel on the scale, tare it, and pour. The clock starts with the first water.',
  scaleIsAway: 'The scale is not connected. Connect it on the Bench, or choose the modelled bed.',
  hot: 'Hot water burns. Practise with cold water, with dry handles, and with nobody in reach.',
  rushLab: 'Rush lab',
  rushLabIs:
    'What would an hour be like with other hands, tools or habits? Simulated people work simulated guests off by the bar’s own planner. Every variant gets the same guests, so that small differences are seen.',
  theLab: 'the lab',
  noStations: 'No station stands on the bench',
  noStationsIs: 'Add the brewers that you have on the Bench; the lab then starts from them.',
  asItIs: 'As it is',
  guestsOfTheHour: 'Guests of the hour',
  cupsAnHour: 'Cups an hour',
  steady: 'Evenly',
  boatsEvery15: 'A boat every 15 min',
  feedsTimetable: 'The feed’s timetable',
  weekday: 'Weekday',
  fromHour: 'From',
  takeFromLog: 'As in the log',
  logKnowsNothing: 'The log has no cups in this hour of the last four weeks.',
  fromTheLog: (cups: number) =>
    `About ${cups} ${plural(cups, 'cup', 'cups')}, as in this hour of the weeks before.`,
  whenTheyCome: 'When they come: draw it, five minutes a bar',
  fromMinute: (from: number, to: number) => `Minutes ${from} to ${to}`,
  shares: 'What they ask for, in shares of each other',
  fewer: (name: Shown) => `One less: ${name}`,
  more: (name: Shown) => `One more: ${name}`,
  variant: (letter: Shown) => `Variant ${letter}`,
  variantShort: 'Variant',
  keepVariant: 'Keep',
  keepVariantOf: (letter: Shown) => `Keep variant ${letter}`,
  variantKept: (name: Shown) => `${name} is kept, and can be added again on any device of this bar.`,
  keptVariants: 'Kept variants',
  addIt: 'Add',
  addKept: (name: Shown) => `Add the kept variant ${name}`,
  remove: 'Remove',
  removeVariant: (letter: Shown) => `Remove variant ${letter}`,
  removeKept: (name: Shown) => `Remove the kept variant ${name}`,
  name: 'Name',
  nameOf: (letter: Shown) => `Name of variant ${letter}`,
  handsOf: (letter: Shown) => `Hands of variant ${letter}`,
  pairsOfHands: 'Pairs of hands',
  paceBy: 'Takes, %',
  tools: { kettles: 'Kettles', grinders: 'Grinders', burners: 'Burners' },
  habits: {
    ahead: 'Doses are weighed into tins ahead',
    shared: 'Equal cups of an order are brewed as one',
    shortMenu: 'Only the two quickest lines are offered',
  },
  addVariant: 'Add a variant',
  simulate: 'Simulate',
  shiftsEach: 'Shifts of each variant',
  shifts: (count: number) => `${count} shifts`,
  simulated: (done: number, of: number) => `${done} of ${of} shifts`,
  cancel: 'Cancel',
  compare: 'Compare',
  findCheapest: 'Find the cheapest change for A',
  waits: 'Waits',
  waitsOf: (letter: Shown, median: Shown, p90: Shown) =>
    `${letter}: half of the orders are out within ${median}, nine of ten within ${p90}.`,
  busiest: (letter: Shown, hands: Shown, tool: Shown, share: Shown) =>
    `${letter}: the hands are busy for ${hands} of the time. Busiest: ${tool}, ${share}.`,
  toolNames: {
    hands: 'the hands',
    kettle: 'the kettles',
    grinder: 'the grinders',
    burner: 'the burners',
  } as Record<string, string>,
  minutes: (minute: Shown) => `${minute} min`,
  inFigures: 'In figures',
  median: 'Median wait',
  nineOfTen: 'Nine of ten',
  overTen: 'Over 10 min',
  oneShiftSaysNothing: (letter: Shown) => `${letter}: one shift says nothing of a difference yet.`,
  noSureDifference: (letter: Shown, first: Shown, by: Shown, give: Shown) =>
    `${letter} against ${first}: no sure difference (${by} ± ${give} of mean wait).`,
  differs: (letter: Shown, first: Shown, isShorter: boolean, by: Shown, give: Shown, shifts: number) =>
    `${letter} against ${first}: waits are ${by} ± ${give} ${isShorter ? 'shorter' : 'longer'} on average, over ${shifts} shifts with the same guests.`,
  exportIt: 'Export',
  json: 'JSON',
  csv: 'CSV',
  exportIs: 'The JSON file runs anywhere with “ek lab file.json”. The CSV file has a line for each shift.',
  changes: {
    ahead: 'weigh doses into tins ahead',
    shared: 'brew equal cups of an order as one',
    shortMenu: 'offer only the two quickest lines',
    kettle: 'add a kettle',
    grinder: 'add a grinder',
    burner: 'add a burner',
    station: 'add a station',
    hands: 'add a pair of hands',
  },
  addOne: (name: Shown) => `add one more ${name}`,
  cheapest: (change: Shown, share: Shown) =>
    `The cheapest change that brings nine of ten orders under eight minutes: ${change}. ${share} % are out in time with it.`,
  noneDoes: (change: Shown, share: Shown) =>
    `No single change brings nine of ten orders under eight minutes. What helps most is to ${change}: ${share} % are then out in time.`,
  noneHelps:
    'No single change brings an order under eight minutes. Take fewer guests, or change several things at once.',
  coffee: 'coffee',
  rushDrill: 'Rush drill',
  rushDrillIs: 'Work the hands card of a bar of your own, with guests who come, wait and change their minds.',
  rushDrillHow:
    'The bar has your own stations, kettles and menu, and nothing is brewed for real. Do each step when the card asks for it, for as long as it would take. “What you see” says when a bed is dry or water has risen.',
  howHard: 'How hard',
  levels: {
    one: 'One cup',
    two: 'Two brewers at once',
    three: 'Three cups',
    six: 'Six cups',
    boat: 'The nine o’clock boat',
  },
  levelIs: {
    one: 'nobody else waits',
    two: 'one order after the other',
    three: 'in ten minutes',
    six: 'in ten minutes',
    boat: 'nine cups in four minutes',
  },
  pace: 'Pace',
  colleague: 'A colleague works beside you',
  whatGoesWrong: 'What may go wrong',
  surprises: {
    stalled: 'A bed stalls',
    kettle: 'A kettle runs dry',
    siphon: 'A siphon does not rise',
    spilt: 'A cup is spilt',
    'two-guests': 'Two guests at once',
    'change-of-mind': 'A guest takes a cup back',
  },
  surprised: {
    kettle: 'The kettle has run dry. Your hands fill it for 20 seconds.',
    spilt: 'A cup was spilt. It is brewed again.',
    'change-of-mind': 'A guest has taken a cup back that was not brewed yet.',
  },
  startDrill: 'Start the drill',
  endDrill: 'End the drill',
  rushAt: (clock: Shown, out: number, of: number) =>
    `${clock} · ${out} of ${of} ${plural(of, 'cup', 'cups')} out`,
  handsFree: 'Nothing for your hands now',
  whatYouSee: 'What you see',
  sight: (station: Shown, what: Shown) => `${station}: ${what}`,
  theReview: 'the review',
  mastered: 'Well done: this drill is no longer hard for you.',
  notMastered: 'The drill is over.',
  nextDrillIs: (level: Shown, surprises: readonly string[]) =>
    `Next: ${level}${surprises.length === 0 ? '' : `, with: ${surprises.join(', ')}`}.`,
  nextDrill: 'Start the next drill',
  sameAgain: 'The same again',
  rushWaits: 'Waits',
  order: 'Order',
  waited: 'Waited',
  couldHave: 'Could have been',
  couldHaveIs: 'What could have been is the same guests, worked off by hands that are never late.',
  notOut: 'not out',
  whatItCost: 'What it cost',
  idle: (clock: Shown) => `Something was due and your hands were idle: ${clock} in all.`,
  wrongOrder: (count: number) =>
    count === 0
      ? 'You did everything in the order of the card.'
      : `${count} ${plural(count, 'step was', 'steps were')} done before another that was due.`,
  tooEarly: (count: number) =>
    count === 0
      ? 'You said nothing was done before it could be.'
      : `${count} ${plural(count, 'time', 'times')} you said that something was done, or had come, before it could be.`,
  latePour: (station: Shown, step: Shown, late: Shown, bare: number) =>
    bare > 0
      ? `${station}, ${step}: ${late} s late. The bed stood bare for ${bare} s, so that it cooled and will drain unevenly.`
      : `${station}, ${step}: ${late} s late. Water still stood over the bed, so that little was lost.`,
  noLatePour: 'No pour was late.',
  outOfWindow: (station: Shown, by: Shown, isLate: boolean) =>
    isLate
      ? `${station}: done ${by} after its window. The cup is more bitter than it should be.`
      : `${station}: done ${by} before its window. The cup is thinner than it should be.`,
  replay: 'The shift again',
  replayAt: 'Moment of the shift',
  lessons: 'Lessons',
  lessonsAre:
    'Each takes about five minutes. A pour is done from a score of 80 on; a rush when the review says so.',
  numbered: (n: number, name: Shown) => `${n}. ${name}`,
  startLesson: (name: Shown) => `Start the lesson ${name}`,
  lessonNames: {
    'first-bloom': 'The first bloom',
    'even-flow': 'An even flow',
    'clean-stop': 'A clean stop',
    'on-the-beat': 'Pulses on the beat',
    'three-pours': 'Bloom and three pours',
    'one-long-pour': 'One long, even pour',
    'small-pulses': 'Many small pulses',
    'one-cup': 'One cup from beans to guest',
    'two-brewers': 'Two brewers at once',
  },
  notice: {
    'first-bloom':
      'Notice where dots stay: those grounds are dry. Reach them before you have poured half of the water.',
    'even-flow': 'Notice how late the flow follows your hand. A full kettle is later than an empty one.',
    'clean-stop': 'Notice how many grams come after you stand the kettle up. Stop by so many earlier.',
    'on-the-beat':
      'Notice whether you wait for the tick or run before it. Tilt just before the tick, not on it.',
    'three-pours': 'Notice the level at the end of each wait: the next pour begins before the bed shows.',
    'one-long-pour': 'Notice the water’s distance from the wall in the last third, when the arm is tired.',
    'small-pulses':
      'Notice that each pulse is short: the stop is half of the work. Keep the level where it is.',
    'one-cup': 'Notice what you can do while the kettle heats and while the bed drains.',
    'two-brewers':
      'Notice which brew the card sends you to, and that you are never at both. Walk before the step is due.',
  },
  lessonAsked: (name: Shown) => `${name}, your trainer asks you to do this one.`,
  lessonDone: 'Done.',
  lessonNote: (name: Shown, notice: Shown) => `${name}. ${notice}`,
  trainersView: 'Trainer’s view',
  trainersViewIs: 'Assign lessons, and see the progress of people who keep their tries on the record.',
  printLessons: 'Print the lessons',
  theRecord: 'the record',
  noServer: 'The server could not be asked',
  nobodyYet: 'Nobody is on the Bench',
  nobodyYetIs: 'Add the people of this bar on the Bench; lessons are assigned to them.',
  assign: 'Assign',
  toWhom: 'To whom',
  lesson: 'Lesson',
  assignedLine: (lesson: Shown, isDone: boolean) => `${lesson}: ${isDone ? 'done' : 'not done yet'}`,
  removeLesson: (lesson: Shown, name: Shown) => `Remove the lesson ${lesson} of ${name}`,
  rushLine: (level: Shown, isMastered: boolean, idle: Shown) =>
    `Rush drill, ${level}: ${isMastered ? 'mastered' : 'practised'}; idle for ${idle}.`,
  nothingOnRecord: 'Nothing is on the record.',
  drillLine: (drill: Shown, tries: number, last: Shown, best: Shown) =>
    `${drill}: ${tries} ${plural(tries, 'try', 'tries')}, ${last} last, ${best} at best.`,
  printSheet: 'Print a sheet',
  printSheetOf: (name: Shown) => `Print a sheet for ${name}`,
  removeRecord: 'Remove this record',
  removeRecordOf: (name: Shown) => `Remove the record of ${name}`,
  removeAll: (count: number) => `Remove all ${count}`,
  lessonsOf: (name: Shown) => `Lessons of ${name}`,
  sheetIs: 'Do them in this order. Write down when, and what the score was.',
  dateAndScore: 'Date ………………  Score …………',
  print: 'Print',
  done: 'done',
  isAsked: 'asked for',
};
