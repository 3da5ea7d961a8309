/** What a learner is told at a cloth sock. */
import { CLOTH, POURED_LESSONS, SHARED, type MethodLessons } from '../lessons';

export const sockLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    ...POURED_LESSONS,
    ...CLOTH,
    'set-filter': {
      why: 'A cloth that is wet all through drains evenly, and a generous rinse takes away what it kept and warms the server.',
      how: 'Wring it out, hang it, and rinse it generously.',
      mistake: 'A cloth that has dried out: it goes stale and must be boiled.',
    },
    grind: {
      why: 'Cloth lets oil through and never quite closes, so a sock bears a finer grind and a slower pour than other brewers.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Going coarser for a slow sock without boiling it first: an old cloth drains slowly, too.',
    },
    pour: {
      why: 'The bed hangs dense and deep in the middle of the sock, so the water belongs there.',
      how: 'Keep the stream thin and steady near the middle, at the pace of the bar. Pour again before the bed shows.',
      mistake: 'Pouring onto the cloth: that water runs out at the side, past the coffee.',
    },
    'swirl-end': {
      why: 'It levels the bed and brings grounds down from the cloth, so that the last water passes all of them.',
      how: 'Turn the ring in small circles.',
      mistake: 'Swirling once the bed shows: it then packs and runs long.',
    },
  },
  schools: {
    'sock-dense': {
      'one-pour': {
        why: 'Only the middle of a fine, dense bed gets water, slowly, so that the first and richest part alone is drawn out.',
        how: 'Keep a thin stream in the middle, low over the bed. Stop when the stream below runs pale, and add the rest as water beside the bed.',
        mistake: 'Going on after it has turned pale: what comes then is thin and bitter.',
      },
    },
  },
};
