/**
 * Devices that are paired with the bar, programs that have a key of it, and how each comes to be so.
 */
import { z } from 'zod';
import { DEVICE_ROLES, KEY_ROLES, ROLES } from './roles';
import { barMs, line, thingId } from './words';

const deviceName = line(40).meta({ description: 'What the device or program is called on the Bench.' });
const person = thingId.meta({ description: 'The person of the bench whose device it is.' });
const realMs = barMs.meta({
  description: 'Milliseconds since 1970 of the server’s own clock, not bar time.',
});

/** What the server knows of whoever asks. */
export const meSchema = z.object({
  pairs: z.boolean().meta({
    description: 'Whether devices have to be paired: not where the bar is served to its own machine alone.',
  }),
  device: z
    .object({ id: z.string(), name: z.string(), role: z.enum(ROLES), person: person.optional() })
    .nullable()
    .meta({ description: 'Null where it is not paired.' }),
});
export type Me = z.infer<typeof meSchema>;

export const pairSchema = z.strictObject({
  secret: z
    .string()
    .trim()
    .min(6, 'must be the six digits of a code, or what stands behind # in a link')
    .max(64, 'must be the six digits of a code, or what stands behind # in a link')
    .meta({ description: 'The six digits of a code, or what stands behind # in a link.' }),
  name: deviceName.optional(),
});

export const inviteSchema = z.strictObject({
  role: z.enum(DEVICE_ROLES),
  name: deviceName,
  person: person.optional(),
});
export const invitationSchema = z.object({
  code: z.string().meta({ description: 'Six digits, good once.' }),
  link: z.string().meta({ description: 'The address that pairs whoever opens it, good once.' }),
  untilMs: realMs,
});
export type Invitation = z.infer<typeof invitationSchema>;

export const makeKeySchema = z.strictObject({ role: z.enum(KEY_ROLES), name: deviceName });
export const madeKeySchema = z.object({
  id: z.string(),
  key: z.string().meta({ description: 'Shown this once; only its hash is stored.' }),
});

export const changeAccessSchema = z.strictObject({
  name: deviceName.optional(),
  role: z.enum(DEVICE_ROLES).optional(),
  person: person.nullable().optional().meta({ description: 'Null where it is nobody’s in particular.' }),
});

export const accessSchema = z.object({
  pairs: z.boolean(),
  addresses: z.array(z.string()).meta({ description: 'Where the bar is found on the network.' }),
  fingerprint: z.string().nullable().meta({
    description: 'Of the local authority, SHA-256; null where the bar has no certificate of its own.',
  }),
  devices: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      role: z.enum(ROLES),
      person: z.string().optional(),
      madeMs: realMs,
      seenMs: realMs.nullable(),
      here: z.boolean().meta({ description: 'Whether it is the device that asks.' }),
    }),
  ),
});
export type Access = z.infer<typeof accessSchema>;
export type AccessDevice = Access['devices'][number];
