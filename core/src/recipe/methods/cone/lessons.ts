/** What a learner is told at a cone. */
import { PAPER, POURED_LESSONS, SHARED, type MethodLessons } from '../lessons';

export const coneLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    ...POURED_LESSONS,
    ...PAPER,
    'set-filter': {
      why: 'The seam is double: folded, it lies flat, and the water runs evenly along the wall. Rinsing takes the taste of paper away and warms brewer and server.',
      how: 'Fold along the seam, with the fold on the side away from the pouring hand. Seat it, then wet all of it with hot water.',
      mistake: 'A paper that stands off the ribs on one side: water runs behind it, past the coffee.',
    },
    grind: {
      why: 'The one large hole holds nothing back, so the grind sets how fast the water passes: medium, finer where it is poured slowly in one go.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Changing the grind together with something else: then nobody knows what helped.',
    },
    'deep-stir': {
      why: 'Fine coffee packs under one long pour. One stir through all of it loosens the bed, and it settles as a low dome that drains evenly.',
      how: 'Put the spoon in to just above the tip, turn once, quickly, and take it out.',
      mistake: 'Stirring again and again: it runs long and turns bitter.',
    },
  },
  schools: {
    'cone-onepour': {
      'one-pour': {
        why: 'A fine bed under a thin, low stream wets itself evenly from the middle, so that no bloom is needed.',
        how: 'Keep the spout low over the middle until the surface has turned pale, then go outwards and wash the wall at the end.',
        mistake: 'Going outwards too soon: the middle stays dry below.',
      },
    },
    'cone-steady': {
      pour: {
        why: 'One even pour keeps the water at one height over the bed, so that it passes at one pace.',
        how: 'Keep a ring at the pace of the bar, with the water near the rim. Sink dry islands with the stream.',
        mistake: 'Pouring onto the filter’s wall: that water runs past the coffee.',
      },
    },
    'cone-evenpulses': {
      pour: {
        why: 'Equal pulses at equal times stir the bed alike each time, so that grind and roast matter less.',
        how: 'Circle half-way out at a steady pace. Begin each pulse by the clock.',
        mistake: 'Catching up on a late pulse with a harder pour.',
      },
    },
  },
};
