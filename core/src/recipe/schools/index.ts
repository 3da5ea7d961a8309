/**
 * The schools that ship: one recipe each, as data.
 */
import type { Recipe } from '../recipe';
import { coneCoolBloom, coneEvenPulses, coneOnePour, coneSteady, coneThirds } from './cone';
import { flatFew, flatSmall } from './flat';
import { hourglassCloth, hourglassPulses, hourglassSteady } from './hourglass';
import { potFoam, potPressure } from './pots';
import { airStirred, pressLong, pressShort } from './press';
import { siphonEarly, siphonLate, siphonSlow } from './siphon';
import { sockDense, sockFours } from './sock';

/** Every recipe that ships with Even Kettle. */
export const SCHOOLS: readonly Recipe[] = [
  coneThirds,
  coneSteady,
  coneOnePour,
  coneEvenPulses,
  coneCoolBloom,
  flatSmall,
  flatFew,
  hourglassPulses,
  hourglassSteady,
  hourglassCloth,
  sockFours,
  sockDense,
  siphonLate,
  siphonSlow,
  siphonEarly,
  pressLong,
  pressShort,
  potPressure,
  potFoam,
  airStirred,
];
