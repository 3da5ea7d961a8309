/**
 * Imports of large files: a log from another program, or a whole bar.
 */
import { z } from 'zod';

/** `log`: brews from a table. `archive`: everything, into an empty bar. */
export const IMPORT_KINDS = ['log', 'archive'] as const;
export type ImportKind = (typeof IMPORT_KINDS)[number];

/** What the check of the file found. */
const foundSchema = z.object({
  /** Brews of a table, or events of an archive. */
  rows: z.number().int(),
  faulty: z.number().int(),
  /** The first rows as they would be taken, and the first that cannot be. */
  shows: z.array(z.object({ line: z.number().int(), shows: z.string() })),
  faults: z.array(z.object({ line: z.number().int(), reason: z.string() })),
  /** The first and last time at which the brews ended, bar time. */
  fromMs: z.number().nullable(),
  toMs: z.number().nullable(),
});
export type ImportFound = z.infer<typeof foundSchema>;

export const importSchema = z.object({
  id: z.string(),
  kind: z.enum(IMPORT_KINDS),
  name: z.string(),
  bytes: z.number().int(),
  /** `refused`: the file cannot be taken, `reason` says why. `stopped`: on a person's word. Nothing of either is kept. */
  phase: z.enum(['looking', 'looked', 'taking', 'taken', 'stopped', 'refused', 'taking-out']),
  share: z.number().min(0).max(1).meta({ description: 'How much of the file this phase has read.' }),
  found: foundSchema.nullable(),
  /** Rows that were added to the log, and rows that it had already. */
  taken: z.number().int(),
  known: z.number().int(),
  reason: z.string().nullable(),
});
export type ImportJob = z.infer<typeof importSchema>;

/** Imported logs; each can be removed again. */
export const importsSchema = z.object({
  current: importSchema.nullable(),
  kept: z.array(
    z.object({ id: z.string(), name: z.string(), brews: z.number().int(), atMs: z.number().int() }),
  ),
});
export type Imports = z.infer<typeof importsSchema>;

export const importQuerySchema = z.object({
  kind: z.enum(IMPORT_KINDS),
  name: z.string().trim().min(1).max(120).default('a file'),
});

export const takeImportQuerySchema = z.object({
  faulty: z
    .literal('leave-out')
    .optional()
    .meta({ description: 'Without it, a row that cannot be taken keeps all of them out.' }),
});

/** Small tables (roast lists, orders): checked, or imported. */
export const takeRowsQuerySchema = z.object({
  take: z.literal('1').optional().meta({ description: '1 takes the file; left out, it is only looked at.' }),
});
export const rowsInSchema = z.object({
  rows: z.array(
    z.discriminatedUnion('ok', [
      z.object({ line: z.int(), ok: z.literal(true), shows: z.string() }),
      z.object({ line: z.int(), ok: z.literal(false), reason: z.string() }),
    ]),
  ),
  taken: z.boolean(),
});
export type RowsIn = z.infer<typeof rowsInSchema>;
