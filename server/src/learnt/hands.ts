/**
 * How long attended steps take, for the bar and for each of its people.
 */
import type { Bar, BrewRecord, HandsLearnt } from '@even-kettle/core/contract';
import { HANDS_OWN, learnDurations, type DoneStep } from '@even-kettle/core/learn';
import { LEARN_FROM, tenth, type Sources } from './sources';

const durationsOf = async ({ records }: Sources) =>
  learnDurations((await records.latest(LEARN_FROM)).flatMap(stepsOf));

export async function learntHands(sources: Sources): Promise<HandsLearnt> {
  const durations = await durationsOf(sources);
  const stepsBy = (id: string | null) =>
    [...HANDS_OWN].flatMap((kind) => {
      const learnt = durations(kind, id ?? undefined);
      if (!learnt || (id !== null && learnt.whose === 'bar')) return [];
      const { cardS, medianS, fromS, toS, steps } = learnt;
      return [
        { kind, cardS: tenth(cardS), medianS: tenth(medianS), fromS: tenth(fromS), toS: tenth(toS), steps },
      ];
    });
  return {
    people: [null, ...sources.bar().people.map(({ id }) => id)]
      .map((id) => ({ id, steps: stepsBy(id) }))
      .filter(({ id, steps }) => id === null || steps.length > 0),
  };
}

/** How long each kind of step takes, as a factor of the card's time: of the person, or of the bar. */
export async function paceOf(by: string | undefined, sources: Sources): Promise<NonNullable<Bar['pace']>> {
  const durations = await durationsOf(sources);
  return Object.fromEntries(
    [...HANDS_OWN].flatMap((kind) => {
      const learnt = durations(kind, by);
      return learnt ? [[kind, Math.round(learnt.factor * 100) / 100] as const] : [];
    }),
  );
}

const stepsOf = (record: BrewRecord): DoneStep[] =>
  record.steps.flatMap(({ kind, by, plannedS, workedS }) =>
    workedS === null ? [] : [{ kind, by, plannedS, realS: workedS }],
  );
