/**
 * Cloth care and rest windows for a calendar (RFC 5545).
 */
import { createEvents, type EventAttributes } from 'ics';
import type { Bar, House } from '@even-kettle/core/contract';
import { CLOTH_BREWS, restWindow } from '@even-kettle/core/learn';

const DAY_MS = 86_400_000;
const dayOf = (atMs: number): [number, number, number] => {
  const day = new Date(atMs);
  return [day.getUTCFullYear(), day.getUTCMonth() + 1, day.getUTCDate()];
};

/** @throws Error if a name cannot be written */
export function careCalendar(bar: Bar, house: House, nowMs: number): string {
  const rests = bar.coffees.flatMap(({ id, name, roast, roastedOn }): EventAttributes[] => {
    if (roastedOn === undefined) return [];
    const roastedMs = Date.parse(`${roastedOn}T00:00:00Z`);
    const { fromDays, toDays } = restWindow(roast);
    return [
      {
        uid: `rest-${id}-${roastedOn}@even-kettle`,
        title: `${name}: good to brew`,
        description: `Roasted ${roastedOn}, ${roast}: good from day ${fromDays} to day ${toDays}.`,
        start: dayOf(roastedMs + fromDays * DAY_MS),
        // In a calendar, an all-day event ends on the day after its last day.
        end: dayOf(roastedMs + (toDays + 1) * DAY_MS),
      },
    ];
  });
  const cloths = house.cloths.flatMap(({ id, name, stationName, uses, due }): EventAttributes[] => [
    {
      uid: `boil-${id}@even-kettle`,
      title: `Boil ${name} (${stationName})`,
      description: 'Once a day in service. Clean hot water, no soap; never let it dry out.',
      start: dayOf(nowMs),
      duration: { days: 1 },
      recurrenceRule: 'FREQ=DAILY',
    },
    ...(due.some((each) => each.startsWith('replace'))
      ? [
          {
            uid: `replace-${id}-${uses}@even-kettle`,
            title: `Replace ${name} (${stationName})`,
            description: `${uses} of about ${CLOTH_BREWS} brews.`,
            start: dayOf(nowMs),
            duration: { days: 1 },
          },
        ]
      : []),
  ]);
  const { error, value } = createEvents([...rests, ...cloths], {
    calName: `${bar.name}: care`,
    productId: 'even-kettle',
  });
  if (error) throw error;
  return value!;
}
