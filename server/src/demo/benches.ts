/**
 * The benches that a database can be made with, and what has happened there.
 */
import { v7 as uuid } from 'uuid';
import type { Bar } from '@even-kettle/core/contract';
import * as demo from '@even-kettle/core/demo';

export const LANTERN_PIER: Bar = demo.lanternPier(Date.now());
export const UPPER_BASIN: Bar = demo.upperBasin(Date.now());

export const twoWeeksBefore = (nowMs: number, bench?: Bar) => demo.twoWeeksBefore(nowMs, () => uuid(), bench);
export const shiftUpTo = (nowMs: number, bench?: Bar) => demo.shiftUpTo(nowMs, () => uuid(), bench);
