import { POURED, SLOWER, STIR, type MethodEntry } from '../method';
import { sockLessons } from './lessons';
import { sockDense, sockFours } from './schools';

export const sock: MethodEntry = {
  method: {
    ...POURED,
    helps: { slow: [STIR], fast: SLOWER },
    id: 'sock',
    name: 'Cloth sock',
    character: 'rich, coating',
    body: 4,
    clarity: 3,
    suits: ['rich'],
    retentionGPerG: 1.7,
    rinseG: 120,
    drawdownExponent: 0.35,
    hasCloth: true,
    canBeHandHeld: true,
    stall: {
      ...POURED.stall,
      now: 'Lift the sock once and let it fall back straight; do not squeeze it.',
      advice: 'Rinse the cloth well; a clean one never clogs. Then one step coarser.',
    },
  },
  brewers: [{ id: 'sock', method: 'sock', name: 'Cloth sock', minDoseG: 16, maxDoseG: 30, maxWaterG: 280 }],
  schools: [sockFours, sockDense],
  lessons: sockLessons,
};
