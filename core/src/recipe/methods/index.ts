/**
 * The methods: a folder each, with what is true of it, its brewers and the recipes that ship.
 */
import type { MethodId, Recipe } from '../recipe';
import { airPress } from './air-press';
import type { Brewer } from './brewer';
import { cone } from './cone';
import { flat } from './flat';
import { foamPot } from './foam-pot';
import { hourglass } from './hourglass';
import type { MethodLessons } from './lessons';
import type { Method, MethodEntry } from './method';
import { press } from './press';
import { pressurePot } from './pressure-pot';
import { siphon } from './siphon';
import { sock } from './sock';

const ENTRIES: Record<MethodId, MethodEntry> = {
  cone,
  flat,
  hourglass,
  sock,
  siphon,
  press,
  'air-press': airPress,
  'pressure-pot': pressurePot,
  'foam-pot': foamPot,
};
const LIST = Object.values(ENTRIES);

export const METHODS = Object.fromEntries(LIST.map(({ method }) => [method.id, method])) as Record<
  MethodId,
  Method
>;

/** What a learner is told, by method. */
export const LESSONS = Object.fromEntries(LIST.map(({ method, lessons }) => [method.id, lessons])) as Record<
  MethodId,
  MethodLessons
>;

/** Every recipe that ships with Even Kettle. */
export const SCHOOLS: readonly Recipe[] = LIST.flatMap(({ schools }) => schools);

export const BREWERS: readonly Brewer[] = LIST.flatMap(({ brewers }) => brewers);

export const brewerById = (id: string): Brewer | undefined => BREWERS.find((brewer) => brewer.id === id);
