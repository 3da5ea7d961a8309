/** What a learner is told at an air press. */
import { KETTLE, SHARED, type MethodLessons } from '../lessons';

export const airPressLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    ...KETTLE,
    'set-filter': {
      why: 'A wet disc lies flat and lets nothing past its edge; hot water warms the press and takes the taste of paper away.',
      how: 'Lay the disc into the cap, wet it with hot water, close the cap, and warm the press through.',
      mistake: 'A disc that has slipped: grounds come past it.',
    },
    grind: {
      why: 'Fine: it steeps for little more than a minute, and is pushed through paper.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Too fine: it cannot be pressed. Never force it; go coarser.',
    },
    load: {
      why: 'Warming water that stays in the cup thins it, and a scale that is not tared moves the target.',
      how: 'Throw the water away, stand the press on a firm cup that fits, put the grounds in, shake them level, and tare.',
      mistake: 'A cup that is too narrow or too thin: it tips as it is pressed.',
    },
    'all-water': {
      why: 'Every ground has to be wet at once, or part of it steeps for less time.',
      how: 'Pour quickly, all over, to the figure.',
      mistake: 'Letting it drip for long before it is stirred.',
    },
    stir: {
      why: 'So short a steep needs all of the coffee moving.',
      how: 'Reach to the bottom and stir steadily for as long as the card says, without tearing the disc.',
      mistake: 'Stopping early: what floats has given little.',
    },
    steep: {
      why: 'What is fine gives its taste quickly; a minute too long turns it bitter.',
      how: 'Leave it standing on its firm cup.',
      mistake: 'Beginning another pour that takes longer than this.',
    },
    press: {
      why: 'An even push keeps the bed whole, and a jam that is forced can spray scalding slurry.',
      how: 'Take it off the scale. Press straight down with a slow, even push, and stop at the hiss.',
      mistake: 'Pressing on the scale, or pressing on after the hiss: the last of it is bitter.',
    },
    bypass: {
      why: 'Some recipes are brewed strong and opened with water afterwards.',
      how: 'Pour it into the cup once the press is off.',
      mistake: 'Pouring it into the press.',
    },
    serve: {
      why: 'What came first is stronger than what came last.',
      how: 'Swirl the cup, wipe its rim, and say “hot”.',
      mistake: 'Leaving the press on the cup: it drips on.',
    },
    clean: {
      why: 'Old oil makes the seal hard and is tasted in the next cup.',
      how: 'Take the cap off, push the bed with its disc into the bin, rinse the seal, and leave the station as you found it.',
      mistake: 'Storing it with the seal inside: it loses its shape.',
    },
  },
};
