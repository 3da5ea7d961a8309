/**
 * Days of the viewer's calendar and moments, milliseconds since 1970. A day is written as pickers have it, 2026-11-20.
 */
import { addDays } from 'date-fns/addDays';
import { formatISO } from 'date-fns/formatISO';
import { isValid } from 'date-fns/isValid';
import { parseISO } from 'date-fns/parseISO';
import { startOfDay as dayStart } from 'date-fns/startOfDay';

export const startOfDay = (atMs: number): number => dayStart(atMs).getTime();

/** The day after, through a change of the clocks as well. */
export const startOfNextDay = (atMs: number): number => addDays(dayStart(atMs), 1).getTime();

export const msOfDay = (day: string): number => parseISO(day).getTime();

export const dayOfMs = (atMs: number): string => formatISO(atMs, { representation: 'date' });

/** The viewer's own order of day, month and year, as `20/11/2026`. */
const SHORT: Intl.DateTimeFormatOptions = { day: '2-digit', month: '2-digit', year: 'numeric' };

/** A day as the viewer writes it; empty for none. @param locale the device's own if left out */
export const showDay = (day: string, locale?: string): string =>
  day === '' ? '' : parseISO(day).toLocaleDateString(locale, SHORT);

/**
 * A day as somebody types it: in the order of their own locale with any mark between, or as 2026-11-20.
 * @returns the day, or null for what is no day
 */
export function readDay(text: string, locale?: string): string | null {
  const numbers = text.match(/\d+/g) ?? [];
  if (numbers.length !== 3 || !/^[\d\s./-]+$/.test(text)) return null;
  const order =
    numbers[0]!.length === 4
      ? ['year', 'month', 'day']
      : new Intl.DateTimeFormat(locale, SHORT)
          .formatToParts(new Date(2000, 0, 1))
          .map(({ type }) => type)
          .filter((type) => type !== 'literal');
  const of = (type: string) => numbers[order.indexOf(type)]!;
  const year = of('year').length === 2 ? `20${of('year')}` : of('year');
  const day = `${year}-${of('month').padStart(2, '0')}-${of('day').padStart(2, '0')}`;
  return isValid(parseISO(day)) ? day : null;
}
