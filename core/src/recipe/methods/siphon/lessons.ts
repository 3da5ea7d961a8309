/** What a learner is told at a siphon. */
import { CLOTH, SHARED, type MethodLessons } from '../lessons';

export const siphonLessons: MethodLessons = {
  lessons: {
    ...SHARED,
    fill: {
      why: 'What is weighed in here is all the water that the brew has. Hot from the tap it rises in some two minutes, cold in about six.',
      how: 'Look the globe over for cracks, weigh the water in, and dry the outside.',
      mistake: 'A wet globe over a flame: it can break.',
    },
    'set-filter': {
      why: 'Off its centre the filter lets grounds past. The chain hangs in the globe and lets the water boil in small bubbles.',
      how: 'Drop the chain through the tube, pull the hook down until it catches the rim, and push the disc to the middle.',
      mistake: 'A filter off its centre: grounds come down with the coffee.',
    },
    grind: {
      why: 'Medium: too fine clogs the filter and the drawing down stalls, too coarse tastes thin after so short a steep.',
      how: 'Start the grinder, let it get up to speed, pour the beans in, and let it run empty.',
      mistake: 'Grinding finer for more strength: the coffee then stands too long over its grounds.',
    },
    load: {
      why: 'The coffee waits dry in the top, so that the rising water wets it from below.',
      how: 'Level the coffee over the filter, set the top in straight, and close it gently with a small turn.',
      mistake: 'Knocking the filter off its centre.',
    },
    light: {
      why: 'The flame heats the globe from the middle of its foot, and the chain breaks the boil into small bubbles, so that nothing bursts out at once.',
      how: 'See that the chain hangs in place and the top leans in loosely, then light the flame. From now on somebody stays with it.',
      mistake: 'Heating an empty, wet or cracked globe: it breaks.',
    },
    'near-boiling': {
      why: 'The top is closed only when the water is near boiling: sooner it rises too cool, later it spurts.',
      how: 'Watch the chain. When small bubbles rise from it in strings, tap.',
      mistake: 'Waiting for a full boil.',
    },
    seal: {
      why: 'Once it is closed, steam has no way out but to push the water up the tube.',
      how: 'Press the top in straight and gently, with a small turn.',
      mistake: 'Forcing it, or setting it in at a slant: it leaks, and nothing rises.',
    },
    rise: {
      why: 'Steam takes far more room than water: its pressure lifts the water through the tube, and the flame holds it there.',
      how: 'Wait until all but a little has risen, and the top bubbles evenly. Tap then.',
      mistake: 'Taking the first bubbles for the end of the rise.',
    },
    lower: {
      why: 'A full flame overheats the top and scorches the coffee; a lowered one just holds the water up.',
      how: 'Lower the flame, read the thermometer in the top, and wait until it stands where the card asks. Too hot: lower the flame first, or stir air in. Too cool: cover it.',
      mistake: 'Lowering it so far that the water falls back.',
    },
    'coffee-in': {
      why: 'Every ground should be under water at the same moment; from here the timer counts. The first stir wets, and nothing more.',
      how: 'Put the coffee in, press under what floats, then stir as often as the card says, along the wall and not against the filter.',
      mistake: 'Stirring hard: fine grounds come loose and clog the filter.',
    },
    steep: {
      why: 'At a steady heat the water takes what it can. Longer or hotter, it takes what is bitter, too.',
      how: 'Leave it alone, with the flame as low as holds the water up, and stay within a step.',
      mistake: 'Going away from a burning flame.',
    },
    'flame-off': {
      why: 'Without the flame the steam below turns to water again, its pressure falls away, and the coffee is drawn down through the filter. The second stir evens out what has settled, so that it drains as one.',
      how: 'Take the flame away, and stir as the card says, all in one direction, so that a low dome stays behind.',
      mistake: 'Leaving the hot burner underneath: it goes on heating.',
    },
    'draw-down': {
      why: 'The steam below has collapsed, and the air outside pushes the coffee down. How long that takes tells of the grind and of the filter.',
      how: 'Stay with it and watch: when air is drawn through and it bubbles for the last time, tap. A low dome above is right.',
      mistake: 'Helping it with a cold cloth: hot glass can break.',
    },
    serve: {
      why: 'The lower globe is hot, and what is below in it is stronger.',
      how: 'Rock the top loose and stand it in its holder. Swirl the globe by its handle, pour, and say “hot”.',
      mistake: 'Pulling the top out at a slant: the tube breaks.',
    },
    cool: {
      why: 'Hot glass breaks under cold water.',
      how: 'Let it stand where nobody touches it.',
    },
    clean: {
      ...CLOTH.clean!,
      how: 'Once the glass has cooled, push the grounds out of the top, rinse both parts, rinse the cloth at once, and keep it cold and wet. A paper disc is thrown away.',
    },
  },
  schools: {
    'siphon-early': {
      rise: {
        why: 'The water rises into coffee that is waiting, so the first of it is cooler than the last; less is known of its temperature.',
        how: 'Watch the coffee from the side. When all of it is wetted from below, tap: the timer starts.',
        mistake: 'Stirring before the water has come through.',
      },
      'coffee-in': {
        why: 'Dry coffee floats on the water that rose into it; pressed under, all of it brews for the same time.',
        how: 'Press what floats under with the paddle, without touching the filter.',
        mistake: 'Stirring hard: fine grounds come loose and clog the filter.',
      },
    },
    'siphon-slow': {
      'coffee-in': {
        why: 'A longer steep at a lower heat wants everything wet from its first second; from here the timer counts.',
        how: 'Put the coffee in and stir as often as the card says, calmly, along the wall and not against the filter.',
        mistake: 'Stirring hard: in a long steep it turns bitter.',
      },
    },
  },
};
