/** What a learner is told at a flat-bottom. */
import { PAPER, POURED_LESSONS, SHARED, type MethodLessons } from '../lessons';

export const flatLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    ...POURED_LESSONS,
    ...PAPER,
    'set-filter': {
      why: 'The flutes hold the paper off the wall, so that it drains on all sides. Rinsing takes the taste of paper away and warms brewer and server.',
      how: 'Seat it level, and rinse in small circles so that the flutes stay up.',
      mistake: 'Crushing the flutes with a hard stream.',
    },
    grind: {
      why: 'A wide, shallow bed over small holes drains slowly, so it is ground medium: too fine and the holes close.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Changing the grind together with something else: then nobody knows what helped.',
    },
  },
  schools: {
    'flat-small': {
      pour: {
        why: 'Many small pulses keep the water low and level over the whole bed, so that every ground gives alike.',
        how: 'Short pours, each before the bed shows; the stream stays low and calm.',
        mistake: 'Letting the bed show between two pulses: its middle is dug out by the next.',
      },
    },
  },
};
