/**
 * What a bed of a coffee keeps, and how its drawdown grows.
 */
import type { Bar, BrewRecord } from '@even-kettle/core/contract';
import { learnDrawdown, learnRetention } from '@even-kettle/core/learn';
import { bedKey } from '@even-kettle/core/plan';
import { LEARN_FROM, type Sources } from './sources';

export const retentionOf = (records: readonly BrewRecord[]) =>
  learnRetention(
    records.flatMap((record) =>
      record.beverageG === null ? [] : [{ ...record, beverageG: record.beverageG }],
    ),
  );

export const drawdownOf = (records: readonly BrewRecord[]) =>
  learnDrawdown(
    records.flatMap(({ brewId, brewWaterG, drawdownS }) =>
      drawdownS === null ? [] : [{ brewId, brewWaterG, drawdownS }],
    ),
  );

export async function bedsOf({ records }: Sources): Promise<NonNullable<Bar['beds']>> {
  const served = (await records.latest(LEARN_FROM)).filter(({ outcome }) => outcome === 'served');
  const byBed = new Map<string, BrewRecord[]>();
  for (const record of served) {
    const key = bedKey(record.recipeId, record.coffee);
    byBed.set(key, [...(byBed.get(key) ?? []), record]);
  }
  return Object.fromEntries(
    [...byBed].flatMap(([key, of]) => {
      const retention = retentionOf(of);
      const drawdown = drawdownOf(of);
      if (!retention && !drawdown) return [];
      // To a twentieth: a card is not to flicker with every cup that is weighed.
      const bed = {
        ...(retention ? { retentionGPerG: twentieth(retention.gPerG) } : {}),
        ...(drawdown ? { drawdownExponent: twentieth(within(drawdown.exponent, 0, 1.5)) } : {}),
      };
      return [[key, bed] as const];
    }),
  );
}

const within = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
const twentieth = (value: number): number => Math.round(value * 20) / 20;
