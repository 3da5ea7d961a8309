import { ON_ITS_GROUNDS, PUSHED, little, type MethodEntry } from '../method';
import { pressLessons } from './lessons';
import { pressLong, pressShort } from './schools';

export const press: MethodEntry = {
  method: {
    ...PUSHED,
    id: 'press',
    name: 'Press',
    character: 'heavy',
    body: 5,
    clarity: 1,
    suits: ['heavy', 'to share'],
    retentionGPerG: 2.4,
    meetsIceC: 86,
    rinseG: 100,
    rinsed: 'Warm',
    anchorMark: 'last water in',
    endMark: 'plunge done',
    pressedBy: 'Plunged',
    late: {
      press: {
        within: little('A press forgives this.'),
        beyond: little('A little heavier; it loses nothing else.'),
      },
      serve: ON_ITS_GROUNDS,
    },
  },
  brewers: [
    { id: 'press-350', method: 'press', name: 'Press 350 ml', minDoseG: 14, maxDoseG: 19, maxWaterG: 300 },
    { id: 'press-1l', method: 'press', name: 'Press 1 l', minDoseG: 36, maxDoseG: 53, maxWaterG: 850 },
  ],
  schools: [pressLong, pressShort],
  lessons: pressLessons,
};
