/**
 * Days of the viewer's calendar and moments, milliseconds since 1970. A day is written as pickers have it, 2026-11-20.
 */
import { addDays } from 'date-fns/addDays';
import { formatISO } from 'date-fns/formatISO';
import { parseISO } from 'date-fns/parseISO';
import { startOfDay as dayStart } from 'date-fns/startOfDay';

export const startOfDay = (atMs: number): number => dayStart(atMs).getTime();

/** The day after, through a change of the clocks as well. */
export const startOfNextDay = (atMs: number): number => addDays(dayStart(atMs), 1).getTime();

export const msOfDay = (day: string): number => parseISO(day).getTime();

export const dayOfMs = (atMs: number): string => formatISO(atMs, { representation: 'date' });
