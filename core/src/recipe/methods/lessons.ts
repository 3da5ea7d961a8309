/**
 * What a learner is told of a step, by what the step is for. Each method's folder has its own; what several methods share is here.
 */

export type StepLesson = { why: string; how: string; mistake?: string };

/** What a step is for, finer than its kind. */
export const LESSON_KEYS = [
  'fill',
  'heat',
  'set-filter',
  'warm-through',
  'weigh',
  'grind',
  'load',
  'bloom',
  'cool-bloom',
  'swirl-bloom',
  'stir-bloom',
  'settle-bloom',
  'pour',
  'one-pour',
  'all-water',
  'wet',
  'stir',
  'stir-end',
  'deep-stir',
  'swirl-end',
  'tap-level',
  'warm-cup',
  'drawdown',
  'steep',
  'dip',
  'sink',
  'plunge',
  'press',
  'bypass',
  'filter-off',
  'decant',
  'share-foam',
  'settle-grounds',
  'serve',
  'cool',
  'clean',
  'light',
  'near-boiling',
  'seal',
  'rise',
  'lower',
  'coffee-in',
  'flame-off',
  'draw-down',
  'warming',
  'first-flow',
  'stream',
  'foam',
] as const;
export type LessonKey = (typeof LESSON_KEYS)[number];

/** The kinds of filter that a step's lesson can hang on. */
export type FilterKind = 'paper' | 'cloth' | 'metal';

export type Lessons = Partial<Record<LessonKey | `${LessonKey}/${FilterKind}`, StepLesson>>;

export type MethodLessons = {
  lessons: Lessons;
  /** Where one school does a step for a reason of its own, by the recipe's id. */
  schools?: Readonly<Record<string, Lessons>>;
};

/** True of every method. */
export const SHARED: Lessons = {
  weigh: {
    why: 'The dose decides how much water is poured, so a tenth of a gram matters.',
    how: 'Tare the cup on the scale, add beans quickly at first, and the last few one by one.',
    mistake: 'Weighing into a cup that was not tared.',
  },
  heat: {
    why: 'Hotter water draws more out of the coffee, and more of what is bitter; each recipe has its own temperature.',
    how: 'The kettle heats by itself. Do the next thing meanwhile.',
  },
  'warm-through': {
    why: 'Cold walls take heat from the first water, and the coffee tastes thinner for it.',
    how: 'Leave the hot water in for a moment.',
  },
  'warm-cup': {
    why: 'A cold cup takes some five degrees from the coffee.',
    how: 'Fill the cup with what is left in the kettle, and empty it before the coffee goes in.',
    mistake: 'Forgetting the water in the cup.',
  },
  cool: {
    why: 'Hot glass and metal break, spit or burn when cold water meets them.',
    how: 'Let it stand where nobody touches it.',
  },
};

/** How a kettle is got ready, where the method has one. */
export const KETTLE: Lessons = {
  fill: {
    why: 'A kettle that is too full is heavy and pours hard; one that is too empty runs dry in mid-pour.',
    how: 'Fill it to the figure, set the temperature, and put it back on its base.',
    mistake: 'Filling it above its mark: it spits as it boils.',
  },
};

/** True of every method whose water is poured over a bed and drains through it. */
export const POURED_LESSONS: Lessons = {
  ...KETTLE,
  load: {
    why: 'Rinse water that stays in the server thins the cup, and a scale that is not tared moves every target.',
    how: 'Empty the server, put the grounds in, break dry lumps, and tare.',
    mistake: 'Leaving the rinse water in the server.',
  },
  bloom: {
    why: 'Gas leaves the coffee and all of it gets wet, so that the water after it meets every ground alike. That all is wet matters more than the grams.',
    how: 'Wet every ground, then let it rest. Much foam tells of a fresh coffee and little of an old one; the darker the foam, the darker the roast.',
    mistake: 'Letting it dry out: once it is dull and cracked, the next water runs through the cracks.',
  },
  'cool-bloom': {
    why: 'Cool water wets the coffee and lets gas out while little that is bitter dissolves. The very hot water after it does the rest.',
    how: 'Pour from the jug of cool water until all is wet.',
    mistake: 'Blooming from the hot kettle.',
  },
  'swirl-bloom': {
    why: 'It brings dry grounds under and levels the bed.',
    how: 'Hold the brewer by its foot and turn it in small circles, two or three times.',
    mistake: 'Swirling so hard that grounds climb the wall and stay there.',
  },
  'stir-bloom': {
    why: 'A lump that stays dry inside gives nothing to the cup; stirred, every ground is wet at once.',
    how: 'Reach to the bottom and lift the grounds through the water, without scraping the filter.',
    mistake: 'Scraping the wall: fine grounds come loose and slow the drain.',
  },
  'settle-bloom': {
    why: 'The bloom is over when the gas has left; how long that takes depends on the coffee’s age, so it is watched and not timed.',
    how: 'It has settled when the foam has sunk, bubbles come singly and the surface still shines. Tap then.',
    mistake: 'Waiting too long: a dull surface with cracks has dried out.',
  },
  pour: {
    why: 'Fresh water draws more out of the bed, and where it falls decides which grounds give their taste.',
    how: 'Keep the stream thin and steady, and follow the mark in the drawing at the pace of the bar. Pour again before the bed shows.',
    mistake: 'Pouring onto the filter’s wall: that water runs past the coffee.',
  },
  'one-pour': {
    why: 'One steady pour keeps the water at one height over the bed, so that it passes at one pace.',
    how: 'Keep the stream even from the first gram to the last, and stay off the wall.',
    mistake: 'Pouring faster as the kettle gets lighter.',
  },
  'stir-end': {
    why: 'Grounds that were left on the wall go back under, and the bed settles level.',
    how: 'Turn a spoon once or twice near the top, slowly, without touching the filter.',
    mistake: 'Stirring to the bottom: fine grounds close the filter and it runs long.',
  },
  'swirl-end': {
    why: 'It levels the bed and brings grounds down from the wall, so that the last water passes all of them.',
    how: 'Hold the brewer by its foot and turn it in small circles.',
    mistake: 'Swirling once the bed shows: it then packs and runs long.',
  },
  'tap-level': {
    why: 'A level bed drains alike everywhere; on a slope the water takes the short way.',
    how: 'Tap the side lightly, once or twice.',
    mistake: 'Knocking hard: fine grounds sink and close the holes.',
  },
  drawdown: {
    why: 'How long it drains tells whether the grind is right: long is too fine, short too coarse.',
    how: 'Wait until the stream turns to drops. The hands are free for another brew.',
    mistake: 'Shaking or pressing the filter for the last of it: what comes last is thin and bitter.',
  },
  bypass: {
    why: 'Only the richest part was drawn through the bed; water beside it opens the taste without drawing out what is bitter.',
    how: 'Pour it into the server, beside the bed.',
    mistake: 'Pouring it through the grounds.',
  },
  'filter-off': {
    why: 'What drips on now is thin and bitter, so the filter is lifted off and never squeezed.',
    how: 'Lift it off in one go, and look at the bed.',
    mistake: 'Squeezing it for the last drops.',
  },
  serve: {
    why: 'A server stratifies: what is below is stronger.',
    how: 'Swirl it, pour, wipe the rim, and say “hot”.',
    mistake: 'Pouring out without a swirl: the first cup is weaker than the last.',
  },
};

/** With a filter of paper. */
export const PAPER: Lessons = {
  'set-filter': {
    why: 'Rinsing takes the taste of paper away, seats the filter, and warms brewer and server.',
    how: 'Seat it flat against the wall, then wet all of it with hot water.',
    mistake: 'A part that stays dry: water runs behind it, past the coffee.',
  },
  clean: {
    why: 'Old oil turns rancid and is tasted in the next cup.',
    how: 'Put the bed with its paper into the bin, rinse with hot water, and leave the station as you found it.',
    mistake: 'Leaving the wet bed standing: it stains and smells.',
  },
};

/** With a filter of cloth. */
export const CLOTH: Lessons = {
  'set-filter': {
    why: 'A cloth that is wet all through drains evenly, and a rinse takes away what it kept from the brew before.',
    how: 'Wring it out, seat it, and rinse it generously.',
    mistake: 'A cloth that has dried out: it goes stale and must be boiled.',
  },
  'filter-off': {
    why: 'What drips on now is thin and bitter, so the cloth is lifted off and never wrung out over the coffee.',
    how: 'Take it off in one go, and look at the bed.',
    mistake: 'Squeezing it for the last drops: oil and fine grounds come with them.',
  },
  clean: {
    why: 'Coffee oil in a cloth turns rancid within hours, and soap stays in it.',
    how: 'Empty the grounds into the bin, rinse the cloth on both sides with hot water at once, and keep it cold and wet.',
    mistake: 'Soap, or letting it dry.',
  },
};
