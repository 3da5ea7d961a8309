/**
 * Checks what a device has stored, and what comes to a page before its schemas are loaded. It may be from
 * another version of the app or the server, or damaged. These checks are small, so that the first page
 * needs no more; answers that come later are read by the API's own schemas (`request.ts`).
 */
import type {
  Bar,
  Devices,
  KettleState,
  LiveEvent,
  PublishedPlan,
  Recipes,
  ScaleState,
  Snapshot,
  StorageState,
} from '@even-kettle/core/contract';
import type { AnswerOf } from '@even-kettle/core/contract/routes';
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
  attempts: listOf(text),
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

const state = shape({ orders: mapOf(order), brews: mapOf(brew), lastBadge: number });
const recipes = listOf(
  shape({
    id: text,
    version: number,
    method: text,
    name: text,
    steps: listOf(shape({ id: text, kind: text })),
  }),
);
const clock = shape({ barMs: number, rate: number });
const published = shape({
  version: number,
  seq: number,
  plan: orNull(plan),
  moves: listOf(shape({ step: text })),
  because: text,
  unplannable: listOf(shape({ cupId: text, reason: text })),
  rough: mapOf(number),
});
const storage = shape({ level: among('enough', 'low', 'full') });
const scale = shape({ stationId: text, connected: truth, atMs: number, massG: number, flowGPerS: number });
const kettle = shape({ kettleId: text, connected: truth, atMs: number, waterC: number, heating: truth });
const kept = shape({
  seq: number,
  state,
  bar,
  recipes,
  plan: orNull(plan),
  clock: shape({ barMs: number, rate: number, wallMs: number }),
});
const snapshot = shape({
  seq: number,
  state,
  bar,
  recipes,
  planned: orNull(published),
  storage,
  barMs: number,
  rate: number,
});

export const isOfflineSnapshot = (value: unknown): value is OfflineSnapshot => kept(value);
export const isSnapshot = (value: unknown): value is Snapshot => snapshot(value);
export const isClock = (value: unknown): value is AnswerOf<'getClock'> => clock(value);
export const isPosted = (value: unknown): value is AnswerOf<'postEvents'> =>
  shape({ accepted: listOf(text), duplicates: listOf(text), seq: number })(value);

/** What comes over the live stream, by the name of its message. */
export type LiveMessages = {
  'bar-event': LiveEvent;
  plan: PublishedPlan;
  bar: Bar;
  recipes: Recipes;
  devices: Devices;
  scale: ScaleState;
  kettle: KettleState;
  storage: StorageState;
  /** The device's role has changed, or it was taken off. */
  me: object;
  /** The server's clock, and what a page must know to show the bar truly. */
  beat: { barMs: number; contract?: number };
};
export type LiveName = keyof LiveMessages;
const LIVE: Record<LiveName, Check> = {
  'bar-event': shape({ seq: number, event }),
  plan: published,
  bar,
  recipes: shape({ recipes }),
  devices: shape({ scales: listOf(scale), kettles: listOf(kettle) }),
  scale,
  kettle,
  storage,
  me: isObject,
  beat: shape({ barMs: number }),
};
export const isLiveMessage = <Name extends LiveName>(
  name: Name,
  value: unknown,
): value is LiveMessages[Name] => LIVE[name](value);
