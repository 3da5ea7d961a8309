/**
 * What a learner is told of a step: why it is done, how, and the commonest mistake.
 */
import {
  METHODS,
  type BrewCard,
  type CardStep,
  type MethodId,
  type StepKind,
} from '@even-kettle/core/recipe';

export type Lesson = { why: string; how: string; mistake: string | null };

type Told = { why: string; how: string };

const BY_KIND: Record<StepKind, Told> = {
  fill: {
    why: 'A kettle that is too full is heavy and pours hard; one that is too empty runs dry in mid-pour.',
    how: 'Fill it to the figure, set the temperature, and put it back on its base.',
  },
  weigh: {
    why: 'The dose decides how much water is poured, so a tenth of a gram matters.',
    how: 'Tare the cup on the scale, then add beans slowly. Start the motor before the beans go in.',
  },
  grind: { why: 'Fresh grounds smell and taste of more.', how: 'Let it run empty.' },
  heat: { why: 'Each recipe wants its own heat.', how: 'It goes on by itself.' },
  'set-filter': {
    why: 'Rinsing takes the taste of paper away, seats the filter, and warms the brewer.',
    how: 'Seat it flat against the wall, then wet all of it with hot water.',
  },
  warm: {
    why: 'A cold cup takes some five degrees from the coffee.',
    how: 'Fill the cup with what is left in the kettle, and empty it before the coffee goes in.',
  },
  load: {
    why: 'Rinse water that stays in the server thins the cup, and a scale that is not tared moves every target.',
    how: 'Empty the server, put the grounds in, tap the bed level, then tare.',
  },
  seal: {
    why: 'Sealed too early the water rises too cool; too late it boils over.',
    how: 'Press the top in gently with a small turn, as soon as small bubbles rise in strings.',
  },
  flame: {
    why: 'The flame sets how hot the water above is.',
    how: 'Move it slowly, and look at the water, not at the flame.',
  },
  pour: {
    why: 'Where the water falls decides which grounds give their taste.',
    how: 'Keep the stream thin and steady, and follow the mark in the drawing at the pace of the bar.',
  },
  bypass: {
    why: 'Only the richest part was drawn through the bed; water beside it opens the taste.',
    how: 'Pour it into the server, not through the grounds.',
  },
  stir: {
    why: 'Dry clumps give nothing.',
    how: 'Reach to the bottom, and turn gently without scraping the filter.',
  },
  swirl: {
    why: 'It levels the bed and brings grounds down from the wall.',
    how: 'Hold the brewer by its foot and turn it in small circles.',
  },
  watch: {
    why: 'What is seen tells more than the clock.',
    how: 'Look closely, and tap as soon as you see it.',
  },
  dip: {
    why: 'The crust has to be wetted so that it sinks.',
    how: 'Push the plunger just below the surface, and lift it again.',
  },
  plunge: { why: 'Force drives fine grounds through the mesh.', how: 'Let the weight of the hand do it.' },
  press: {
    why: 'An even push keeps the bed whole.',
    how: 'Press straight down with a slow, even push; stop at the hiss.',
  },
  drawdown: {
    why: 'How long it drains tells whether the grind is right.',
    how: 'Wait until the stream turns to drops.',
  },
  settle: { why: 'Nothing is to be done while it rests.', how: 'Use the time for another brew.' },
  decant: {
    why: 'What drips on thins the cup; what stands on its grounds turns bitter.',
    how: 'Lift it off in one go, and look at the bed.',
  },
  serve: {
    why: 'A server stratifies: what is below is stronger.',
    how: 'Swirl it, pour, wipe the rim, and say “hot”.',
  },
  cool: { why: 'Hot glass breaks under cold water.', how: 'Let it stand.' },
  clean: {
    why: 'Old oil turns rancid and is tasted in the next cup.',
    how: 'Knock the bed out, rinse with hot water, and leave the station as you found it.',
  },
};

/** Where a method's step is another thing than the same kind elsewhere. */
const BY_METHOD: Partial<Record<MethodId, Partial<Record<StepKind, Told>>>> = {
  cone: {
    'set-filter': {
      why: 'The seam is double: folded, it lies flat, and the water runs evenly along the wall.',
      how: 'Fold along the seam. The fold lies on the side away from the pouring hand.',
    },
  },
  flat: {
    'set-filter': {
      why: 'The flutes hold the paper off the wall, so that it drains on all sides.',
      how: 'Seat it level, and rinse in small circles so that the flutes stay up.',
    },
  },
  hourglass: {
    'set-filter': {
      why: 'The three layers keep the paper from being sucked into the spout, which lets the air out.',
      how: 'Lay the side with three layers over the spout. Rinse, then pour the water out through the spout with the paper in place.',
    },
  },
  sock: {
    'set-filter': {
      why: 'A cloth that is wet all through drains evenly and takes no taste.',
      how: 'Wring it out, hang it, and rinse it generously.',
    },
  },
  siphon: {
    'set-filter': {
      why: 'Off its centre the filter lets grounds past; the chain makes the water boil gently.',
      how: 'Drop the chain through the tube, pull the hook down until it catches the rim, and push the disc to the middle.',
    },
  },
  press: {
    'set-filter': {
      why: 'Cold glass takes the heat that the coffee needs for its long steep.',
      how: 'Fill it with hot water, and leave the plunger in so that the mesh warms too.',
    },
  },
};

export function lessonOf(step: CardStep, card: BrewCard): Lesson {
  const told = BY_METHOD[card.method]?.[step.kind] ?? BY_KIND[step.kind];
  const poured = step.kind === 'pour' && METHODS[card.method].steeps;
  return {
    ...(poured
      ? {
          why: 'Every ground has to be wet at once, or part of it steeps for less time.',
          how: 'Pour quickly, all over.',
        }
      : told),
    mistake: step.mistake ?? null,
  };
}
