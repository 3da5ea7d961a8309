/** What a learner is told at a press. */
import { KETTLE, SHARED, type MethodLessons } from '../lessons';

export const pressLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    ...KETTLE,
    'set-filter': {
      why: 'Cold glass takes the heat that the coffee needs for its long steep.',
      how: 'Fill it with hot water, and leave the plunger in so that the mesh warms too.',
      mistake: 'Using a glass with a crack or a mesh with a bent edge.',
    },
    grind: {
      why: 'Coarse: it steeps for minutes, and fine grounds slip through the mesh and make the cup muddy.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Grinding as for a cone: the plunger jams and the cup is bitter.',
    },
    load: {
      why: 'Warming water that stays in the glass thins the cup, and a scale that is not tared moves the target.',
      how: 'Throw the water away, put the grounds in, and tare.',
      mistake: 'Leaving the warming water in the glass.',
    },
    'all-water': {
      why: 'Every ground has to be wet at once, or part of it steeps for less time.',
      how: 'Pour quickly, all over, to the figure.',
      mistake: 'Pouring slowly into one place: dry islands float on top.',
    },
    wet: {
      why: 'Coffee floats. A short push puts the crust under, so that all of it steeps from the start.',
      how: 'Set the lid on, push the plunger down until all is wet, lift it again, and leave the lid on.',
      mistake: 'Pushing on to the bottom.',
    },
    stir: {
      why: 'Coffee floats: stirred under, all of it steeps from the start.',
      how: 'Reach to the bottom and turn the grounds under, with a spoon that cannot crack the glass.',
      mistake: 'Stirring the surface only.',
    },
    steep: {
      why: 'Coarse grounds give their taste slowly, and a larger press needs no longer than a small one.',
      how: 'Lid on, plunger up. The hands are free for another brew.',
      mistake: 'Lifting the lid to look: it cools.',
    },
    dip: {
      why: 'The crust has to be wetted so that it sinks, and the cup is clearer for what has sunk.',
      how: 'Push the plunger just below the surface, and lift it again.',
      mistake: 'Pushing deeper: what has settled is stirred up.',
    },
    sink: {
      why: 'Fine grounds need a minute to sink; what lies on the bottom does not come into the cup.',
      how: 'Leave it still.',
      mistake: 'Moving the press.',
    },
    plunge: {
      why: 'Force drives fine grounds through the mesh, and a plunger that jams can spray scalding slurry.',
      how: 'Let the weight of the hand do it, straight down. If it sticks, lift it a little, wait, and go on.',
      mistake: 'Pushing on against resistance.',
    },
    bypass: {
      why: 'Some recipes are brewed strong and opened with water afterwards.',
      how: 'Pour it into the coffee that has been poured off.',
      mistake: 'Pouring it into the press.',
    },
    decant: {
      why: 'Coffee that stands on its grounds goes on brewing and turns bitter, so all of it is poured off at once.',
      how: 'Pour it off slowly, and stop before the sludge.',
      mistake: 'Keeping the second cup in the press.',
    },
    serve: {
      why: 'Coffee that stands on its grounds goes on brewing and turns bitter, so it is poured out at once.',
      how: 'Pour slowly, stop before the sludge, wipe the rim, and say “hot”.',
      mistake: 'Tilting out the last drop: the sludge comes with it.',
    },
    clean: {
      why: 'Oil in the mesh turns rancid, and grounds block a drain.',
      how: 'Add a little water, swirl the slurry, and throw it into the bin in one go, never into the sink. Take the mesh apart, rinse it, and rinse the glass.',
      mistake: 'Rinsing grounds into the sink.',
    },
  },
};
