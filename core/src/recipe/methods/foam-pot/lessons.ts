/** What a learner is told at a long-handled pot. */
import { SHARED, type MethodLessons } from '../lessons';

export const foamPotLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    fill: {
      why: 'From cool water the foam has time to build; a small pot serves two to four small cups, and each size has its own water.',
      how: 'Weigh cool water from the tap into the pot, a small cup for each guest.',
      mistake: 'Hot water: the foam does not build.',
    },
    grind: {
      why: 'As fine as flour: the grounds stay in the cup, and only dust carries the foam and then sinks.',
      how: 'Use the finest setting, and let the grinder run empty.',
      mistake: 'Coarser grounds: they stay in the mouth.',
    },
    stir: {
      why: 'All of it has to be wet while the water is cool; once the foam builds nothing is stirred any more. Sugar dissolves only now.',
      how: 'Put the coffee in, and the sugar where it was ordered, and stir until no lump is left.',
      mistake: 'Stirring later: the foam is lost.',
    },
    light: {
      why: 'The slower it warms, the thicker the foam.',
      how: 'Stand the pot on the smallest flame. From now on somebody stays with it.',
      mistake: 'A larger flame to be quicker: it boils over within seconds.',
    },
    warming: {
      why: 'The coffee sinks and gives its taste while it warms.',
      how: 'Leave it still. Be back, and stay, when the card asks for it.',
      mistake: 'Going away from a burning flame.',
    },
    foam: {
      why: 'The foam closes from the rim towards the middle just before it would boil.',
      how: 'Watch the dark ring in the middle. As it closes, tap and lift the pot.',
      mistake: 'Letting it boil: the foam is lost.',
    },
    'share-foam': {
      why: 'The foam is what a guest looks at first, and it keeps to the pot when it is poured.',
      how: 'Lift the pot, and spoon the foam into each cup before any coffee.',
      mistake: 'Giving all of the foam to the first cup.',
    },
    'settle-grounds': {
      why: 'The dust sinks within a minute, and the coffee is poured off it.',
      how: 'Leave the pot standing off the flame.',
      mistake: 'Shaking the pot.',
    },
    serve: {
      why: 'What is poured slowly leaves its grounds behind, and the foam stays on top.',
      how: 'Pour slowly down the side of each cup in turn, a little at a time. Say “hot”, and that the grounds stay in the cup.',
      mistake: 'Pouring fast: the foam breaks.',
    },
    clean: {
      why: 'Grounds that dry in the pot burn on, and they block a drain.',
      how: 'Empty the grounds into the bin, rinse the pot, and wipe it dry.',
      mistake: 'Rinsing grounds into the sink.',
    },
  },
};
