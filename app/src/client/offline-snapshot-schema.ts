/**
 * Whether what a device has kept can be read as the bar of today. It was written by this app, or one before it, or came to
 * harm on the way; what does not fit is set aside and never taken for what it is not.
 */
import type { OfflineSnapshot } from './offline-snapshot';

type Check = (value: unknown) => boolean;

const text: Check = (value) => typeof value === 'string';
const number: Check = (value) => typeof value === 'number' && Number.isFinite(value);
const truth: Check = (value) => typeof value === 'boolean';
const among =
  (...these: string[]): Check =>
  (value) =>
    these.includes(value as string);
const listOf =
  (each: Check): Check =>
  (value) =>
    Array.isArray(value) && value.every(each);
const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const mapOf =
  (each: Check): Check =>
  (value) =>
    isObject(value) && Object.values(value).every(each);
const shape =
  (fields: Record<string, Check>): Check =>
  (value) =>
    isObject(value) && Object.entries(fields).every(([field, check]) => check(value[field]));
const orNull =
  (check: Check): Check =>
  (value) =>
    value === null || check(value);

const event = shape({ id: text, type: text, atMs: number });
const step = shape({
  id: text,
  kind: text,
  name: text,
  attended: truth,
  startS: number,
  endS: number,
  durationS: number,
});
const card = shape({
  recipeId: text,
  method: text,
  doseG: number,
  brewWaterG: number,
  steps: listOf(step),
  holds: listOf(isObject),
});
const cup = shape({
  cupId: text,
  recipeId: text,
  recipeVersion: number,
  coffee: text,
  cupMl: number,
  status: among('waiting', 'brewing', 'served', 'cancelled'),
  brewIds: listOf(text),
  tried: listOf(text),
});
const order = shape({ id: text, badge: number, takenMs: number, cups: listOf(cup), events: listOf(event) });
const brew = shape({
  id: text,
  orderId: text,
  cupId: text,
  stationId: text,
  stationName: text,
  planned: card,
  card,
  startedMs: number,
  lastMs: number,
  status: among('running', 'served', 'cleaned', 'abandoned'),
  marks: mapOf(isObject),
  events: listOf(event),
});
const named = shape({ id: text, name: text });
const bar = shape({
  name: text,
  units: shape({ mass: text, temperature: text, volume: text }),
  hands: number,
  altitudeM: number,
  tapC: number,
  burners: number,
  stations: listOf(shape({ id: text, name: text, brewerId: text })),
  grinders: listOf(shape({ id: text, name: text, points: listOf(shape({ band: number, setting: number })) })),
  kettles: listOf(shape({ id: text, name: text, powerW: number, sizeMl: number })),
  coffees: listOf(shape({ id: text, name: text, roast: text })),
  people: listOf(named),
  cloths: listOf(named),
});
const plan = shape({ starts: mapOf(number), hands: mapOf(number), finish: mapOf(number), cost: number });

const kept = shape({
  seq: number,
  state: shape({ orders: mapOf(order), brews: mapOf(brew), lastBadge: number }),
  bar,
  recipes: listOf(
    shape({
      id: text,
      version: number,
      method: text,
      name: text,
      steps: listOf(shape({ id: text, kind: text })),
    }),
  ),
  plan: orNull(plan),
  clock: shape({ barMs: number, rate: number, wallMs: number }),
});

export const isOfflineSnapshot = (value: unknown): value is OfflineSnapshot => kept(value);
