import { POURED, type MethodEntry } from '../method';
import { coneLessons } from './lessons';
import { coneCoolBloom, coneEvenPulses, coneOnePour, coneSteady, coneThirds } from './schools';

export const cone: MethodEntry = {
  method: {
    ...POURED,
    id: 'cone',
    name: 'Cone',
    character: 'bright, clear',
    body: 2,
    clarity: 4,
    suits: ['clear'],
    retentionGPerG: 2.0,
    rinseG: 60,
    drawdownExponent: 0.35,
    papers: 'Cone papers',
  },
  brewers: [
    { id: 'cone-s', method: 'cone', name: 'Cone S', minDoseG: 10, maxDoseG: 20, maxWaterG: 210 },
    { id: 'cone-m', method: 'cone', name: 'Cone M', minDoseG: 14, maxDoseG: 32, maxWaterG: 340 },
  ],
  schools: [coneThirds, coneSteady, coneOnePour, coneEvenPulses, coneCoolBloom],
  lessons: coneLessons,
};
