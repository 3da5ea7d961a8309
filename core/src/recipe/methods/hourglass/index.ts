import { FREE_THE_SPOUT, POURED, QUICKER, SLOWER, type MethodEntry } from '../method';
import { hourglassLessons } from './lessons';
import { hourglassCloth, hourglassPulses, hourglassSteady } from './schools';

export const hourglass: MethodEntry = {
  method: {
    ...POURED,
    helps: { slow: [FREE_THE_SPOUT, ...QUICKER], fast: SLOWER },
    id: 'hourglass',
    name: 'Hourglass',
    character: 'very clean',
    body: 1,
    clarity: 5,
    suits: ['clear', 'to share'],
    retentionGPerG: 2.2,
    rinseG: 120,
    drawdownExponent: 0.5,
    papers: 'Hourglass papers',
    stall: {
      ...POURED.stall,
      now: 'Lift the filter a little, or free the spout with a stick, so that the air can leave. Then let it run.',
      advice:
        'Free the spout and lift the filter a little, so that air can leave; only if it stalls again, one step coarser.',
    },
    cautions: { serve: 'hot-glass' },
  },
  brewers: [
    {
      id: 'hourglass-s',
      method: 'hourglass',
      name: 'Hourglass S',
      minDoseG: 18,
      maxDoseG: 34,
      maxWaterG: 380,
    },
    {
      id: 'hourglass-l',
      method: 'hourglass',
      name: 'Hourglass L',
      minDoseG: 28,
      maxDoseG: 52,
      maxWaterG: 640,
    },
  ],
  schools: [hourglassPulses, hourglassSteady, hourglassCloth],
  lessons: hourglassLessons,
};
