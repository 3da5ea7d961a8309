import type { Brewer } from '../brewer';
import { BOILS_ON, OVER_A_FLAME, sameCost, nothing, type MethodEntry } from '../method';
import { pressurePotLessons } from './lessons';
import { potHeaped, potPressure } from './schools';

/** A basket that is levelled holds this much more or less, grams. */
const BASKET_SLACK_G = 0.3;
/** By its coffee: the basket's dose, give or take what rounding does to it. */
const pot = (id: string, name: string, doseG: number, maxWaterG: number): Brewer => ({
  id,
  method: 'pressure-pot',
  name,
  minDoseG: doseG - BASKET_SLACK_G,
  maxDoseG: doseG + BASKET_SLACK_G,
  maxWaterG,
  filledWhole: true,
});

export const pressurePot: MethodEntry = {
  method: {
    ...OVER_A_FLAME,
    id: 'pressure-pot',
    name: 'Pressure pot',
    character: 'dense, small',
    body: 5,
    clarity: 2,
    suits: ['heavy'],
    retentionGPerG: 1.5,
    // Steam drives the water through the bed once.
    isImmersion: false,
    usualCupMl: 150,
    anchorMark: 'flame on',
    endMark: 'sputter',
    checklist: ['Not tamped', 'Joint dry, closed tight'],
    late: { ...BOILS_ON, anchor: sameCost(nothing('Nothing is spoilt; the cup comes later.')) },
  },
  brewers: [
    pot('pressure-pot-90', 'Pressure pot 90 ml', 11.3, 110),
    pot('pressure-pot', 'Pressure pot 150 ml', 18.8, 185),
    pot('pressure-pot-300', 'Pressure pot 300 ml', 37.5, 370),
  ],
  schools: [potPressure, potHeaped],
  lessons: pressurePotLessons,
};
