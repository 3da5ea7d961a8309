import { BOILS_ON, OVER_A_FLAME, sameCost, nothing, type MethodEntry } from '../method';
import { foamPotLessons } from './lessons';
import { potFoam } from './schools';

export const foamPot: MethodEntry = {
  method: {
    ...OVER_A_FLAME,
    id: 'foam-pot',
    name: 'Long-handled pot',
    character: 'thick, with its grounds',
    body: 5,
    clarity: 1,
    suits: ['heavy'],
    // Nothing is filtered: what is in the pot is in the cup.
    retentionGPerG: 0,
    usualCupMl: 75,
    takenOff: { with: 'decant', words: 'Spoon the foam into each cup before any coffee.' },
    anchorMark: 'flame on',
    endMark: 'foam closes the ring',
    late: { ...BOILS_ON, anchor: sameCost(nothing('Nothing is spoilt; the cup comes later.')) },
  },
  brewers: [
    {
      id: 'foam-pot',
      method: 'foam-pot',
      name: 'Long-handled pot',
      minDoseG: 6,
      maxDoseG: 18,
      maxWaterG: 170,
    },
    {
      id: 'foam-pot-l',
      method: 'foam-pot',
      name: 'Long-handled pot L',
      minDoseG: 16,
      maxDoseG: 35,
      maxWaterG: 320,
    },
  ],
  schools: [potFoam],
  lessons: foamPotLessons,
};
