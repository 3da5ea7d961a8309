/**
 * The few words that the API's description is written in.
 */
import { z } from 'zod';

export const schemaOf = (schema: z.ZodType, io: 'input' | 'output' = 'output') => {
  const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, { io });
  return rest;
};
export const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
export const json = (name: string, description: string) => ({
  description,
  content: { 'application/json': { schema: ref(name) } },
});
export const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: ref('Problem') } },
});
