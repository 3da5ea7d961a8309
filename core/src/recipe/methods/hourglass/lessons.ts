/** What a learner is told at an hourglass. */
import { CLOTH, PAPER, POURED_LESSONS, SHARED, type MethodLessons } from '../lessons';

export const hourglassLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    ...POURED_LESSONS,
    ...PAPER,
    'set-filter': {
      why: 'The three layers keep the paper from being sucked into the spout, which lets the air out. Thick paper needs a generous rinse, which also warms the glass.',
      how: 'Lay the side with three layers over the spout. Rinse, then pour the water out through the spout with the paper in place.',
      mistake: 'Paper that closes the spout: the air cannot leave and the brew stalls.',
    },
    'set-filter/cloth': {
      why: 'A reusable filter keeps something of the brew before it; a generous rinse takes that away and warms the glass. The spout has to stay free, so that the air can leave.',
      how: 'Seat it evenly in the neck, rinse it generously, and pour the water out.',
      mistake: 'A filter that lies over the spout: the air cannot leave and the brew stalls.',
    },
    'set-filter/metal': {
      why: 'A reusable filter keeps something of the brew before it; a generous rinse takes that away and warms the glass. The spout has to stay free, so that the air can leave.',
      how: 'Seat it evenly in the neck, rinse it generously, and pour the water out.',
      mistake: 'A filter that lies over the spout: the air cannot leave and the brew stalls.',
    },
    grind: {
      why: 'Thick paper drains slowly and the bed is deep, so it is ground coarser than for a cone.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Going coarser for a stall: free the spout first.',
    },
    'grind/cloth': {
      why: 'A reusable filter lets fine grounds close it, so it is ground coarser still.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Going coarser for a stall: lift the filter first.',
    },
    'grind/metal': {
      why: 'Fine grounds pass a metal filter and cloud the cup, so it is ground coarser still.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Going coarser for a stall: lift the filter first.',
    },
    load: {
      why: 'Rinse water that stays in the carafe thins the cup, and a scale that is not tared moves every target.',
      how: 'Empty the carafe, put the grounds in, break dry lumps, and tare.',
      mistake: 'Leaving the rinse water in the carafe.',
    },
    'swirl-bloom': {
      why: 'It brings dry grounds under and levels the bed.',
      how: 'Hold the carafe by its collar and turn it in small circles, two or three times.',
      mistake: 'Swirling so hard that grounds climb the wall and stay there.',
    },
    'filter-off/cloth': CLOTH['filter-off']!,
    serve: {
      why: 'The carafe stratifies: what is below is stronger.',
      how: 'Swirl it, hold it by its collar, pour, wipe the rim, and say “hot”.',
      mistake: 'Pouring out without a swirl: the first cup is weaker than the last.',
    },
    bypass: {
      why: 'Only the richest part was drawn through the bed; water beside it opens the taste without drawing out what is bitter.',
      how: 'Take the filter out, and pour it into the carafe.',
      mistake: 'Pouring it through the grounds.',
    },
    'clean/cloth': CLOTH.clean!,
    'clean/metal': {
      why: 'Oil and fine grounds close a metal filter and turn rancid.',
      how: 'Knock the bed into the bin, rinse the filter from behind with hot water, and rinse the glass once it has cooled a little.',
      mistake: 'Cold water into hot glass.',
    },
  },
};
