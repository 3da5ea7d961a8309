import { STEEPED, sameCost, little, costsTheCup, type MethodEntry } from '../method';
import { siphonLessons } from './lessons';
import { siphonEarly, siphonLate, siphonSlow } from './schools';

export const siphon: MethodEntry = {
  method: {
    ...STEEPED,
    takenOff: { with: 'serve', words: 'The hot top goes into its stand.' },
    id: 'siphon',
    name: 'Siphon',
    character: 'full yet clean',
    body: 4,
    clarity: 4,
    suits: ['rich', 'to share'],
    retentionGPerG: 1.9,
    lossG: 18,
    rinseG: 80,
    bedSetsTime: true,
    heatedIn: 'globe',
    anchorMark: 'coffee meets water',
    endMark: 'final bubbling',
    hasCloth: true,
    checklist: ['Coffee in, dry', 'Top sealed'],
    stall: {
      now: 'Flame off and away. Cover the top and wait; never shake or force hot glass.',
      next: 'One step coarser, and boil the cloth.',
      advice: 'Boil the cloth; if it stalls again, one step coarser.',
    },
    late: {
      flame: sameCost(
        costsTheCup('Every second on the flame cooks it further: flame off first, the stir can go.'),
      ),
      anchor: {
        within: little('The water above changes by the second: check its temperature again.'),
        beyond: costsTheCup(
          'The water above has boiled on: check its temperature again before the coffee goes in.',
        ),
      },
    },
    cautions: { flame: 'flame', serve: 'hot-glass', clean: 'cool-glass' },
  },
  brewers: [
    { id: 'siphon-s', method: 'siphon', name: 'Siphon S', minDoseG: 14, maxDoseG: 20, maxWaterG: 280 },
    { id: 'siphon-m', method: 'siphon', name: 'Siphon M', minDoseG: 20, maxDoseG: 30, maxWaterG: 430 },
    { id: 'siphon-l', method: 'siphon', name: 'Siphon L', minDoseG: 32, maxDoseG: 42, maxWaterG: 600 },
  ],
  schools: [siphonLate, siphonSlow, siphonEarly],
  lessons: siphonLessons,
};
