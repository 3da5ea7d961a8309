/**
 * The bar's copies: one every night, looked through before it counts, and kept by days and weeks; also in a second folder, on
 * another disk or a share, where one is set. A copy of before a migration or a restore is made by whoever does that.
 */
import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { BarState } from '@even-kettle/core/brew';
import {
  copiesFolder,
  copiesIn,
  copyDatabase,
  newCopyName,
  toPrune,
  type CopyFile,
  type CopyKind,
} from './copy-files';
import { digestOf, type Proof } from './prove';

const HOUR_MS = 3_600_000;
/** A copy of the night is made at the first look after this hour of the server's day. */
const NIGHT_HOUR = 3;
/** Where the server sleeps at night, it is made by day after so long. */
const AT_LATEST_MS = 26 * HOUR_MS;
/** After so long without a good copy people are told. */
const DUE_MS = 72 * HOUR_MS;
/** After a failure it is tried again no sooner than this. */
const AGAIN_MS = HOUR_MS;

export type Made = { ok: true; copy: CopyFile; events: number } | { ok: false; reason: string };

export type Copies = {
  list: () => CopyFile[];
  /** When the latest good copy was made; null where there is none. */
  latestMs: () => number | null;
  /** Whether it has been too long since. */
  isDue: () => boolean;
  /** Makes the copy of the night, if it is time. */
  look: () => Promise<void>;
  make: (kind: CopyKind) => Promise<Made>;
  /** Looks a copy through, as before a restore; null where there is none of that name. */
  prove: (name: string) => Promise<{ copy: CopyFile; proof: Proof } | null>;
  /** The live log has gone on: the states between which a copy may fall are remembered while one is made. */
  passed: (state: BarState, seq: number) => void;
  folders: readonly string[];
};

type Parts = {
  databaseFile: string;
  /** A further folder; null where none is set. */
  second: string | null;
  now: () => { state: BarState; seq: number };
  prove: (file: string) => Promise<Proof>;
  realMs?: () => number;
  warn: (detail: unknown, message: string) => void;
  /** Called when a copy was made. */
  changed: () => void;
};

export function openCopies(parts: Parts): Copies {
  const { databaseFile, second, now, prove, realMs = Date.now, warn, changed } = parts;
  const folder = copiesFolder(databaseFile);
  const openedMs = realMs();
  let making: Promise<unknown> = Promise.resolve();
  let failedMs = -Infinity;
  let states: Map<number, BarState> | null = null;
  const latestMs = () => copiesIn(folder)[0]?.atMs ?? null;

  const make = async (kind: CopyKind): Promise<Made> => {
    const atMs = realMs();
    const name = newCopyName(folder, kind, atMs);
    const begun = now();
    states = new Map([[begun.seq, begun.state]]);
    const file = join(folder, name);
    // What is not proven yet is called otherwise, so that nobody takes it for a copy.
    const unproven = `${file}.unproven`;
    try {
      await copyDatabase(databaseFile, unproven);
      const proof = await prove(unproven);
      if (!proof.ok) throw new Error(`The copy is not whole. ${proof.reason}`);
      const lived = states.get(proof.seq);
      if (!lived || digestOf(lived, proof.seq) !== proof.digest)
        throw new Error(`The log of the copy makes another state than the bar is in at event ${proof.seq}.`);
      renameSync(unproven, file);
      if (second !== null) keepElsewhere(file, second, name);
      prune();
      changed();
      const copy = copiesIn(folder).find((each) => each.name === name)!;
      return { ok: true, copy, events: proof.seq };
    } catch (error) {
      rmSync(unproven, { force: true });
      failedMs = atMs;
      warn({ err: error }, 'no copy of the bar could be made');
      return { ok: false, reason: error instanceof Error ? error.message : String(error) };
    } finally {
      states = null;
    }
  };

  /** Another disk that is not there just now must not cost the copy that is here. */
  const keepElsewhere = (file: string, elsewhere: string, name: string) => {
    try {
      mkdirSync(elsewhere, { recursive: true });
      copyFileSync(file, join(elsewhere, `${name}.part`));
      renameSync(join(elsewhere, `${name}.part`), join(elsewhere, name));
    } catch (error) {
      warn({ err: error }, `the copy could not be kept in ${elsewhere} as well`);
    }
  };

  const prune = () => {
    for (const each of [folder, ...(second === null ? [] : [second])])
      for (const { file } of toPrune(copiesIn(each))) rmSync(file, { force: true });
  };

  const isTime = (): boolean => {
    const nowMs = realMs();
    if (nowMs - failedMs < AGAIN_MS) return false;
    const lastMs = copiesIn(folder).find(({ kind }) => kind === 'night')?.atMs;
    if (lastMs === undefined) return new Date(nowMs).getHours() >= NIGHT_HOUR;
    if (nowMs - lastMs > AT_LATEST_MS) return true;
    const tonight = new Date(nowMs).setHours(NIGHT_HOUR, 0, 0, 0);
    return nowMs >= tonight && lastMs < tonight;
  };

  const alone = (kind: CopyKind): Promise<Made> => {
    const made = making.then(() => make(kind));
    making = made;
    return made;
  };

  return {
    folders: [folder, ...(second === null ? [] : [second])],
    list: () => copiesIn(folder),
    latestMs,
    // A bar that is new has none yet, and is given its time.
    isDue: () => realMs() - (latestMs() ?? openedMs) > DUE_MS,
    look: async () => {
      if (isTime()) await alone('night');
    },
    make: alone,
    prove: async (name) => {
      const copy = copiesIn(folder).find((each) => each.name === name);
      return copy && existsSync(copy.file) ? { copy, proof: await prove(copy.file) } : null;
    },
    passed: (state, seq) => void states?.set(seq, state),
  };
}
