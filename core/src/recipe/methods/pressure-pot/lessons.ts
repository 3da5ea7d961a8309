/** What a learner is told at a stove-top pressure pot. */
import { SHARED, type MethodLessons } from '../lessons';

export const pressurePotLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    fill: {
      why: 'The pot works only when it is filled whole: its basket sets the dose. Above the valve the water closes the one way out that steam has.',
      how: 'Fill hot water to just below the valve.',
      mistake: 'Water over the valve.',
    },
    grind: {
      why: 'Fine enough to hold the water back for a moment, never so fine that the steam cannot push it through.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Grinding as fine as it goes: then the valve has to let it out.',
    },
    load: {
      why: 'Steam pushes the water through the basket: packed, it finds no way; a damp joint lets it out at the side.',
      how: 'Fill the basket level, wipe its edge and the joint dry, and screw the pot tight by its body, not by its handle.',
      mistake: 'Tamping the basket.',
    },
    light: {
      why: 'A flame wider than the base burns the handle and scorches the coffee.',
      how: 'Stand the pot over a small flame. From now on somebody stays with it.',
      mistake: 'Full flame to be quicker: it spurts and tastes burnt.',
    },
    'first-flow': {
      why: 'Steam over the water grows until it pushes it up through the coffee.',
      how: 'Look at the outlet with the lid half open, and keep your face away: it can spurt. When the first coffee comes, tap.',
      mistake: 'Going away: from the first flow to the sputter it is less than a minute.',
    },
    lower: {
      why: 'The pot has heat enough by now; less flame lets the rest flow calmly and keeps it from burning.',
      how: 'Lower the flame as soon as coffee flows.',
      mistake: 'Leaving the flame up until it spurts.',
    },
    stream: {
      why: 'As the water runs out, steam comes with it: it sputters, and from then on only bitter coffee comes.',
      how: 'Watch the stream. When it turns pale and begins to sputter, tap.',
      mistake: 'Waiting until all has come.',
    },
    'flame-off': {
      why: 'Cooling the base ends it at once: the pressure falls and no more is pushed through.',
      how: 'Off the flame, and the base, outside only, onto a cold wet cloth. Keep it closed.',
      mistake: 'Opening it: it is under pressure while it is hot.',
    },
    serve: {
      why: 'What came first lies below and is stronger.',
      how: 'Stir in the pot, pour, wipe the rim, and say “hot”.',
      mistake: 'Pouring without a stir.',
    },
    cool: {
      why: 'A hot pot is still under pressure.',
      how: 'Let it stand until no steam comes.',
      mistake: 'Unscrewing it hot.',
    },
    clean: {
      why: 'Old oil turns rancid, and grounds in the joint keep it from closing.',
      how: 'Once no steam comes, unscrew it with a dry towel, empty the basket into the bin, rinse all parts with water alone, and let them dry open.',
      mistake: 'Putting it away closed and wet.',
    },
  },
  schools: {
    'pot-heaped': {
      load: {
        why: 'More coffee in the same basket makes it denser; loose, it still lets the water through.',
        how: 'Heap a low hill, wipe the edge and the joint dry, and screw the pot tight by its body, not by its handle.',
        mistake: 'Pressing the hill down.',
      },
    },
  },
};
