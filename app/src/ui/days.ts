/**
 * Days of the viewer's calendar and moments, milliseconds since 1970. A day is written as pickers have it, 2026-11-20.
 */
export const startOfDay = (atMs: number): number => new Date(new Date(atMs).setHours(0, 0, 0, 0)).getTime();

/** The day after, through a change of the clocks as well. */
export const startOfNextDay = (atMs: number): number => {
  const day = new Date(startOfDay(atMs));
  return day.setDate(day.getDate() + 1);
};

export const msOfDay = (day: string): number => new Date(`${day}T00:00`).getTime();

export function dayOfMs(atMs: number): string {
  const day = new Date(atMs);
  const two = (number: number) => String(number).padStart(2, '0');
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}
