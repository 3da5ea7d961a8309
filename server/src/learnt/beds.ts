/**
 * How much water a bed of a coffee retains, and how its drawdown grows with the dose.
 */
import type { Bar, BrewRecord } from '@even-kettle/core/contract';
import { learnDrawdown, learnRetention } from '@even-kettle/core/learn';
import { bedKey } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { LEARN_FROM, ofOneKind, versionsLike, type Sources } from './sources';

export const retentionOf = (records: readonly BrewRecord[]) =>
  learnRetention(
    records.flatMap((record) =>
      record.beverageG === null ? [] : [{ ...record, beverageG: record.beverageG }],
    ),
  );

export function drawdownOf(records: readonly BrewRecord[]) {
  const [latest] = records.slice(-1);
  const exponent = latest && METHODS[latest.method].drawdownExponent;
  if (exponent === undefined || exponent === null) return null;
  return learnDrawdown(
    records.flatMap((record) => {
      const { brewId, brewWaterG, drawdownS } = record;
      const plannedS = plannedDrawdownS(record);
      return drawdownS === null || plannedS === null ? [] : [{ brewId, brewWaterG, drawdownS, plannedS }];
    }),
    exponent,
  );
}

/** From the end of the last pour to the end mark, as the card expected it. */
function plannedDrawdownS({ steps, plannedBrewS }: BrewRecord): number | null {
  const lastPour = steps.findLast(({ kind, phase }) => kind === 'pour' && phase === 'brew');
  return lastPour ? plannedBrewS - (lastPour.plannedStartS + lastPour.plannedS) : null;
}

export async function bedsOf(sources: Sources): Promise<NonNullable<Bar['beds']>> {
  const served = (await sources.records.latest(LEARN_FROM)).filter(({ outcome }) => outcome === 'served');
  const byBed = new Map<string, BrewRecord[]>();
  for (const record of served) {
    const key = bedKey(record.recipeId, record.coffee);
    byBed.set(key, [...(byBed.get(key) ?? []), record]);
  }
  return Object.fromEntries(
    [...byBed].flatMap(([key, of]) => {
      const retention = retentionOf(of);
      const drawdown = drawdownOf(recordsOfOneKind(of, sources));
      if (!retention && !drawdown) return [];
      // Rounded to a twentieth, so that a card does not change with every cup that is weighed.
      const bed = {
        ...(retention ? { retentionGPerG: twentieth(retention.gPerG) } : {}),
        ...(drawdown
          ? {
              drawdownExponent: twentieth(within(drawdown.exponent, 0, 1.5)),
              drawdownExponentSd: twentieth(drawdown.exponentSd),
              drawdownLevel: twentieth(within(drawdown.level, 0.5, 2)),
            }
          : {}),
      };
      return [[key, bed] as const];
    }),
  );
}

const within = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
const twentieth = (value: number): number => Math.round(value * 20) / 20;

/** @param of of one recipe with one coffee, oldest first */
export const recordsOfOneKind = (of: readonly BrewRecord[], sources: Sources): BrewRecord[] =>
  ofOneKind(
    of,
    ({ recipeVersion, grind }) => ({ recipeVersion, grinderId: grind?.grinderId ?? null }),
    (version) => versionsLike(of[0]!.recipeId, version, sources),
  );
