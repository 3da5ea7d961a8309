/** Days and moments: every day of some years there and back, whatever the machine's time zone does with its clocks. */
import { dayOfMs, msOfDay, readDay, showDay, startOfDay, startOfNextDay } from './days';

const HOUR_MS = 3_600_000;

test('a day begins where it is read to begin, ends where the next begins, and is told by any of its moments', () => {
  let atMs = msOfDay('2024-01-01');
  for (let n = 0; n < 3 * 365 + 1; n += 1) {
    const day = dayOfMs(atMs);
    expect(day).toMatch(/^202\d-\d\d-\d\d$/);
    expect(msOfDay(day)).toBe(atMs);
    const nextMs = startOfNextDay(atMs);
    const hours = (nextMs - atMs) / HOUR_MS;
    expect([23, 23.5, 24, 24.5, 25]).toContain(hours);
    for (const within of [0, 0.01, 0.5, 0.999]) {
      const momentMs = atMs + Math.floor(within * hours * HOUR_MS);
      expect([dayOfMs(momentMs), startOfDay(momentMs), startOfNextDay(momentMs)]).toEqual([
        day,
        atMs,
        nextMs,
      ]);
    }
    atMs = nextMs;
  }
  // Two years of 365 days after one of 366.
  expect(dayOfMs(atMs)).toBe('2027-01-01');
});

test('a day is read as it is shown, in the order of the viewer’s own locale; what is no day is none', () => {
  for (const locale of ['en-GB', 'en-US', 'de-DE', 'ja-JP', 'sv-SE', 'hu-HU'])
    for (const day of ['2026-11-20', '2024-02-29', '2026-03-04', '1999-12-31'])
      expect([locale, readDay(showDay(day, locale).replace(/[^\d\s./-]/g, ''), locale)]).toEqual([
        locale,
        day,
      ]);
  expect(readDay('3.4.26', 'de-DE')).toBe('2026-04-03');
  expect(readDay('3/4/26', 'en-US')).toBe('2026-03-04');
  expect(readDay('2026-11-20', 'en-US')).toBe('2026-11-20');
  for (const none of ['', 'tomorrow', '20/11', '31/02/2026', '20/13/2026', '1/2/3/4', '-'])
    expect([none, readDay(none, 'en-GB')]).toEqual([none, null]);
});
