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
};
