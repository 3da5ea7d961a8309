import { POURED, type MethodEntry } from '../method';
import { flatLessons } from './lessons';
import { flatFew, flatSmall } from './schools';

export const flat: MethodEntry = {
  method: {
    ...POURED,
    id: 'flat',
    name: 'Flat-bottom',
    character: 'even, sweet',
    body: 3,
    clarity: 3,
    suits: ['sweet'],
    retentionGPerG: 2.1,
    rinseG: 60,
    drawdownExponent: 0.8,
    papers: 'Flat-bottom papers',
  },
  brewers: [{ id: 'flat', method: 'flat', name: 'Flat-bottom', minDoseG: 14, maxDoseG: 28, maxWaterG: 300 }],
  schools: [flatSmall, flatFew],
  lessons: flatLessons,
};
