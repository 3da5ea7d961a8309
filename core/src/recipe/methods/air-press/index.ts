import { ON_ITS_GROUNDS, PUSHED, type MethodEntry } from '../method';
import { airPressLessons } from './lessons';
import { airStirred } from './schools';

export const airPress: MethodEntry = {
  method: {
    ...PUSHED,
    id: 'air-press',
    name: 'Air press',
    character: 'round, quick',
    body: 3,
    clarity: 3,
    suits: ['quick'],
    retentionGPerG: 1.2,
    meetsIceC: 82,
    iceIn: 'the server',
    rinseG: 60,
    anchorMark: 'first water',
    endMark: 'hiss',
    papers: 'Paper discs',
    pressedBy: 'Pressed',
    late: { serve: ON_ITS_GROUNDS },
  },
  brewers: [
    { id: 'air-press', method: 'air-press', name: 'Air press', minDoseG: 11, maxDoseG: 18, maxWaterG: 250 },
  ],
  schools: [airStirred],
  lessons: airPressLessons,
};
