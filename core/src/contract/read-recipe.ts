/** What is asked and answered where a recipe is read out of a text. */
import { z } from 'zod';
import { BED_PREPARATIONS, METHOD_IDS, PLAIN_FILTERS, ROAST_LEVELS, START_CUES } from '../recipe';
import { WATER_PATHS } from '../pour';

/** Longer than any recipe that anybody says, characters. */
const TEXT_MAX = 65_536;

export const recipeTextSchema = z.strictObject({
  text: z.string('must be text').max(TEXT_MAX, `must be at most ${TEXT_MAX} characters`),
});

const said = z.union([z.number(), z.tuple([z.number(), z.number()])]);
const seconds = said.meta({ description: 'Seconds, or the ends of a range.' });

/** Only what the text says, in grams, °C and seconds; the rest is left out. */
export const readTextSchema = z.strictObject({
  method: z.enum(METHOD_IDS).optional(),
  filter: z.enum(PLAIN_FILTERS).optional(),
  name: z.string().optional(),
  roast: z.enum(ROAST_LEVELS).optional(),
  doseG: z.number().optional(),
  waterG: z.number().optional(),
  waterC: z.union([said, z.enum(['room', 'cold'])]).optional(),
  offBoil: z.literal(true).optional(),
  ratio: z.number().optional(),
  grindBand: z.number().optional(),
  servings: z.number().optional(),
  bypassG: z.number().optional(),
  iceG: z.number().optional(),
  rinseG: z.number().optional(),
  bed: z.enum(BED_PREPARATIONS).optional(),
  brewerMl: z.number().optional().meta({ description: 'What the brewer holds, ml.' }),
  pours: z.array(
    z.strictObject({
      atS: seconds.optional(),
      waitS: seconds.optional(),
      toG: z.number().optional(),
      waterC: z.union([said, z.literal('room')]).optional(),
      path: z.enum(WATER_PATHS).optional(),
      then: z.enum(['swirl', 'stir']).optional(),
      cue: z.enum(START_CUES).optional(),
    }),
  ),
  stirs: z.array(
    z.strictObject({ atS: seconds.optional(), times: said.optional(), forS: seconds.optional() }),
  ),
  steepS: z.number().optional(),
  flameOffS: z.number().optional(),
  plungeS: z.number().optional(),
  pressForS: seconds.optional(),
  doneS: z.tuple([z.number(), z.number()]).optional(),
  unread: z
    .array(z.string())
    .meta({ description: 'Parts that were not understood, in the text’s own words.' }),
  asked: z
    .array(z.string())
    .meta({ description: 'Fields that are needed and not said, or said twice otherwise.' }),
  usual: z.array(z.string()).meta({ description: 'Fields that were filled with what is usual.' }),
});
