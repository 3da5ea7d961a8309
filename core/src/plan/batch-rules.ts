/**
 * A batch is like work of several brews, done together. Doses of one coffee are weighed, filters of one kind are set and
 * rinsed, stations of one kind are cleaned in one go: what has to be fetched and put away is so once.
 */
import type { StepKind } from '../recipe';
import type { BatchRule, Plan } from './problem';

/** Of a step's usual time so much is spent once, however many are done; and so many are done at once. */
const ALIKE: Partial<Record<StepKind, { once: number; max: number }>> = {
  weigh: { once: 4 / 12, max: 4 },
  'set-filter': { once: 6 / 18, max: 3 },
  clean: { once: 8 / 20, max: 3 },
};

/**
 * How a step may be done together with others like it; undefined where it may not.
 * @param durationS whole seconds alone
 * @param like of what kind the others have to be: the coffee that is weighed, the station that is got ready
 */
export function batchOfKind(kind: StepKind, durationS: number, like: string): BatchRule | undefined {
  const alike = ALIKE[kind];
  if (!alike) return undefined;
  const setup = Math.round(durationS * alike.once);
  return { key: `${kind} ${like} ${durationS}`, setup, each: durationS - setup, max: alike.max };
}

/** The share of a step's time that is spent once, however many like it are done together; 0 where each takes its own time. */
export const onceOf = (kind: StepKind): number => ALIKE[kind]?.once ?? 0;

/** The steps that a plan has done together with this one, by their keys, itself first. */
export const togetherWith = (key: string, plan: Pick<Plan, 'batches'> | null): string[] => [
  key,
  ...(plan?.batches?.find((keys) => keys.includes(key)) ?? []).filter((other) => other !== key),
];
