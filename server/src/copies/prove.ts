/** Looks a copy through: SQLite's own check of every page, and the log folded from its first event to a state. */
import { createHash } from 'node:crypto';
import { openDatabase } from '../store/database';
import { canonical } from '../store/canonical';
import { openLog } from '../store/log';
import { openRecipes } from '../store/recipes';
import type { BarState } from '@even-kettle/core/brew';

export type Proof =
  | { ok: true; seq: number; /** Names the state that its log makes. */ digest: string }
  | { ok: false; reason: string };

export const digestOf = (state: BarState, seq: number): string =>
  createHash('sha256').update(canonical({ state, seq })).digest('hex');

export async function proveCopy(file: string): Promise<Proof> {
  const source = await openDatabase(file, { readonly: true, keptStatements: 10 }).catch(
    (error: unknown) => error,
  );
  if (source instanceof Error || !(source instanceof Object && 'query' in source))
    return { ok: false, reason: `It cannot be opened: ${String(source)}` };
  const opened = source as Awaited<ReturnType<typeof openDatabase>>;
  try {
    const [first] = await opened.query<{ integrity_check: string }[]>('PRAGMA integrity_check(1)');
    if (first?.integrity_check !== 'ok')
      return { ok: false, reason: first?.integrity_check ?? 'It cannot be read.' };
    const faults: string[] = [];
    const { book } = await openRecipes(opened, (fault) => faults.push(fault));
    const log = await openLog(opened, book, { warn: (fault) => faults.push(fault) });
    const [damage] = log.damage();
    if (damage) return { ok: false, reason: `Event ${damage.seq} cannot be read: ${damage.reason}` };
    return { ok: true, seq: log.seq(), digest: digestOf(log.state(), log.seq()) };
  } catch (error) {
    return { ok: false, reason: String(error) };
  } finally {
    await opened.destroy();
  }
}
