/**
 * What the demo's scales have read: each brew that stood on one leaves its weight, as its log says that it was poured.
 */
import type { DataSource } from 'typeorm';
import { timelineAt, type BarState } from '@even-kettle/core/brew';
import type { Bar, BrewRecord } from '@even-kettle/core/contract';
import { seededRandom, weighed, type Poured } from '@even-kettle/core/rush';
import { openRecords } from '../store/records';
import { openTraces } from '../store/traces';

/** A scale goes on reading for a while after the drops stop. */
const STANDS_ON_MS = 6000;

/** @param fromMs brews that ended before this have been weighed */
export async function weighAll(
  source: DataSource,
  state: BarState,
  bar: Bar,
  { fromMs, nowMs }: { fromMs: number; nowMs: number },
): Promise<void> {
  const traces = openTraces(source);
  const random = seededRandom(41);
  const onScale = new Set(bar.stations.filter(({ scale }) => scale === 'simulated').map(({ id }) => id));
  const weigh = (brewId: string, pours: Poured[], untilMs: number) => {
    for (const point of weighed(pours, untilMs, random)) traces.add(brewId, point);
  };
  const records = await openRecords(source).between(fromMs, nowMs + 1);
  for (const record of records)
    if (onScale.has(record.stationId)) {
      const pours = pouredOf(record);
      weigh(record.brewId, pours, Math.max(endOf(record), pours.at(-1)?.toMs ?? 0) + STANDS_ON_MS);
    }
  for (const brew of Object.values(state.brews))
    if (brew.status === 'running' && onScale.has(brew.stationId)) {
      const pours = timelineAt(brew, nowMs).flatMap(({ step, status, startMs, endMs }): Poured[] => {
        const toG = brew.marks[step.id]?.readingG;
        return toG === undefined || status !== 'done' ? [] : [{ fromMs: startMs, toMs: endMs, toG }];
      });
      weigh(brew.id, pours, nowMs);
    }
  await traces.flush();
}

const endOf = ({ zeroMs, realBrewS }: BrewRecord): number => (zeroMs ?? 0) + (realBrewS ?? 0) * 1000;

const pouredOf = ({ zeroMs, steps }: BrewRecord): Poured[] =>
  steps.flatMap(({ realStartS, realEndS, readingG }) =>
    zeroMs === null || realStartS === null || realEndS === null || readingG === null
      ? []
      : [{ fromMs: zeroMs + realStartS * 1000, toMs: zeroMs + realEndS * 1000, toG: readingG }],
  );
