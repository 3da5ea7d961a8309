/**
 * Scales and kettles: what they say to the screens, what may be asked of them, and the line protocol of a bridge that
 * speaks for real ones.
 */
import { z } from 'zod';
import { thingId } from './words';

export const DEVICE_PROTOCOL = 'even-kettle/devices@1';

const massG = z.number().min(-5000).max(20_000).meta({ description: 'Grams, as on the display.' });
const waterC = z.number().min(-20).max(120);
const setC = z.number().min(0, 'must be at least 0 °C').max(100, 'must be at most 100 °C');
const ownMs = z
  .number()
  .min(0)
  .max(1e15)
  .meta({ description: 'The bridge’s own clock, milliseconds; it never runs backwards.' });

/** What a bridge says, one JSON object a message. */
export const fromBridgeSchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('hello'),
    protocol: z.literal(DEVICE_PROTOCOL, `must be ${DEVICE_PROTOCOL}`),
    device: z.enum(['scale', 'kettle']),
    id: thingId.meta({
      description: 'The station that the scale stands at, or the kettle’s id on the bench.',
    }),
  }),
  z.object({ type: z.literal('reading'), tMs: ownMs, massG }),
  z.object({
    type: z.literal('state'),
    tMs: ownMs,
    waterC,
    levelG: z.number().min(0).max(20_000).optional(),
    setC: setC.nullable(),
    heating: z.boolean(),
  }),
  z.object({ type: z.literal('tared') }),
  z.object({ type: z.literal('lost') }),
  z.object({ type: z.literal('found') }),
  z.object({ type: z.literal('pong'), n: z.number().int() }),
]);
export type FromBridge = z.infer<typeof fromBridgeSchema>;

/** What the server says to a bridge. */
export const toBridgeSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('welcome'), protocol: z.literal(DEVICE_PROTOCOL) }),
  z.object({ type: z.literal('tare') }),
  z.object({ type: z.literal('set'), setC: setC.nullable() }),
  z.object({ type: z.literal('ping'), n: z.number().int() }),
  z.object({ type: z.literal('error'), reason: z.string() }),
]);
export type ToBridge = z.infer<typeof toBridgeSchema>;

/** A scale as the screens see it. */
export const scaleStateSchema = z.object({
  stationId: z.string(),
  connected: z.boolean(),
  atMs: z.number().meta({ description: 'Bar time of the reading.' }),
  massG: z.number(),
  flowGPerS: z.number(),
  /** Only a stand-in can be poured on from the screen. */
  simulated: z.boolean(),
  practised: z.boolean().meta({ description: 'A practised hand pours by itself when the bar asks for it.' }),
});
export type ScaleState = z.infer<typeof scaleStateSchema>;

export const kettleStateSchema = z.object({
  kettleId: z.string(),
  connected: z.boolean(),
  atMs: z.number(),
  waterC: z.number(),
  levelG: z.number().nullable(),
  setC: z.number().nullable(),
  heating: z.boolean(),
  simulated: z.boolean(),
});
export type KettleState = z.infer<typeof kettleStateSchema>;

export const devicesSchema = z.object({
  scales: z.array(scaleStateSchema),
  kettles: z.array(kettleStateSchema),
});
export type Devices = z.infer<typeof devicesSchema>;

/** What a screen may ask of a scale. */
export const scaleOrderSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('tare') }),
  z.strictObject({
    do: z.literal('pour'),
    flowGPerS: z.number().min(0, 'must not be negative').max(60, 'must be at most 60 g a second'),
  }),
  z.strictObject({ do: z.literal('practised'), on: z.boolean() }),
  z.strictObject({ do: z.literal('lose'), forS: z.number().min(0).max(3600) }),
]);
export type ScaleOrder = z.infer<typeof scaleOrderSchema>;

export const kettleOrderSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('set'), setC: setC.nullable() }),
  z.strictObject({ do: z.literal('fill'), levelG: z.number().min(0).max(6000) }),
]);
export type KettleOrder = z.infer<typeof kettleOrderSchema>;

export const traceSchema = z.object({
  brewId: z.string(),
  points: z
    .array(z.object({ atMs: z.number(), massG: z.number() }))
    .meta({ description: 'On straight lines between them no reading is off by more than 0.15 g.' }),
});
export type Trace = z.infer<typeof traceSchema>;
