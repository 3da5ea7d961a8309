/**
 * Who may come in: devices that were paired and programs that have a key, each known by a token of 256 random bits, of which
 * only the hash is stored. Times are real time, not bar time.
 */
import { createHash, randomBytes, randomInt, randomUUID } from 'node:crypto';
import { Mutex } from 'async-mutex';
import { LessThan, type DataSource } from 'typeorm';
import { isKeyRole, type DeviceRole, type KeyRole, type Role } from '@even-kettle/core/contract/roles';
import { CredentialRow, InvitationRow } from './credential-rows';

/** How long a code and its link are good. */
export const INVITATION_MS = 5 * 60_000;
/** How long a link that the server's own terminal showed is good. */
const LEAD_LINK_MS = 24 * 3600 * 1000;
/** A device that comes with a token of this age gets a new one. */
const TOKEN_AGE_MS = 7 * 24 * 3600 * 1000;
/** Requests that were under way with a token when its successor was first used are still taken. */
const OLD_TOKEN_MS = 60_000;
/** Guesses at codes and links, from everybody together. */
const TRIES_A_MINUTE = 10;
/** A device that was not here for so long is paired anew; browsers keep its cookie no longer either. */
export const IDLE_MS = 400 * 24 * 3600 * 1000;
const SEEN_EVERY_MS = 60_000;
/** Revoked ones are remembered for so long, so that their device is told so. */
const REVOKED_KEPT_MS = 90 * 24 * 3600 * 1000;
const CREDENTIALS_MAX = 200;

/** Whoever asks, as the server knows it. */
export type Known = { id: string; name: string; role: Role; person?: string };
export type Found =
  | { ok: true; known: Known; newToken?: string }
  /** `revoked`: it was known once. */
  | { ok: false; why: 'unknown' | 'revoked' };
export type Paired = { ok: true; known: Known; token: string } | { ok: false; why: 'wrong' | 'too-many' };
type Changed = 'changed' | 'unknown' | 'last-lead' | 'key-role';

export type Credentials = {
  /** @param mayRenew whether a new token can be sent with the answer */
  find: (token: string, mayRenew: boolean) => Found;
  pair: (secret: string, name?: string) => Promise<Paired>;
  /** @returns the secret of the link, and the code where it has one */
  invite: (
    asked: { role: DeviceRole; name: string; person?: string },
    kind: 'code' | 'link',
  ) => Promise<{ link: string; code: string; untilMs: number }>;
  /** Null where there are as many as there may be. */
  makeKey: (role: KeyRole, name: string) => Promise<{ id: string; key: string } | null>;
  all: () => CredentialRow[];
  hasLead: () => boolean;
  change: (
    id: string,
    change: { name?: string; role?: DeviceRole; person?: string | null },
  ) => Promise<Changed>;
  revoke: (id: string) => Promise<Changed>;
  /** Calls with the id of every one that was revoked or got another role, before anything else is answered. */
  onEnded: (listener: (id: string) => void) => void;
  close: () => Promise<void>;
};

const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
const newToken = (): string => randomBytes(32).toString('base64url');
const isKey = ({ role }: CredentialRow): boolean => isKeyRole(role);

const known = ({ id, name, role, person }: CredentialRow): Known => ({
  id,
  name,
  role,
  ...(person === null ? {} : { person }),
});

// eslint-disable-next-line max-lines-per-function -- what is known is shared by its short functions
export async function openCredentials(
  source: DataSource,
  nowMs: () => number = Date.now,
): Promise<Credentials> {
  const rows = source.getRepository(CredentialRow);
  const invitations = source.getRepository(InvitationRow);
  await rows.delete({ revokedMs: LessThan(nowMs() - REVOKED_KEPT_MS) });
  const byId = new Map((await rows.find()).map((row) => [row.id, row]));
  /** Tokens that are taken, by hash. */
  const byHash = new Map<string, CredentialRow>();
  /** Tokens that have a successor, with until when they still do. */
  const old = new Map<string, number>();
  /** When each was last sent a successor; before a restart, it may have been a moment before it. */
  const sentMs = new Map<string, number>();
  const openedMs = nowMs();
  for (const row of byId.values())
    for (const hash of [row.hash, row.nextHash]) if (hash !== null) byHash.set(hash, row);
  const ended: ((id: string) => void)[] = [];
  const tries: number[] = [];
  const alone = new Mutex();
  const living = () => [...byId.values()].filter(({ revokedMs }) => revokedMs === null);
  const isLastLead = (row: CredentialRow) =>
    row.role === 'lead' && living().filter(({ role }) => role === 'lead').length === 1;
  /** What is remembered of a token need not be on the disk before the answer: at worst it is said again. */
  const keepSoon = (row: CredentialRow) => void rows.save(row).catch(() => undefined);

  const add = async (row: Pick<CredentialRow, 'name' | 'role' | 'person'>) => {
    const token = newToken();
    const made: CredentialRow = {
      ...row,
      id: randomUUID(),
      hash: hashOf(token),
      tokenMs: nowMs(),
      nextHash: null,
      madeMs: nowMs(),
      seenMs: null,
      revokedMs: null,
    };
    await rows.save(made);
    byId.set(made.id, made);
    byHash.set(made.hash, made);
    return { made, token };
  };

  /** The successor has arrived: from now on it is the token. */
  const takeNext = (row: CredentialRow, hash: string) => {
    old.set(row.hash, nowMs() + OLD_TOKEN_MS);
    Object.assign(row, { hash, nextHash: null, tokenMs: nowMs() });
    keepSoon(row);
  };

  const renewed = (row: CredentialRow): string | null => {
    if (isKey(row) || nowMs() - row.tokenMs < TOKEN_AGE_MS) return null;
    // One at a time: of several answers at once, any may be the last that the browser reads.
    if (row.nextHash !== null && nowMs() - (sentMs.get(row.id) ?? openedMs) < OLD_TOKEN_MS) return null;
    if (row.nextHash !== null) byHash.delete(row.nextHash);
    const token = newToken();
    row.nextHash = hashOf(token);
    byHash.set(row.nextHash, row);
    sentMs.set(row.id, nowMs());
    keepSoon(row);
    return token;
  };

  return {
    find: (token, mayRenew) => {
      const hash = hashOf(token);
      const row = byHash.get(hash);
      if (!row) return { ok: false, why: 'unknown' };
      if (row.revokedMs !== null) return { ok: false, why: 'revoked' };
      const oldUntilMs = old.get(hash);
      if (oldUntilMs !== undefined && nowMs() > oldUntilMs) {
        old.delete(hash);
        byHash.delete(hash);
        return { ok: false, why: 'unknown' };
      }
      if (!isKey(row) && nowMs() - (row.seenMs ?? row.madeMs) > IDLE_MS) return { ok: false, why: 'unknown' };
      if (hash === row.nextHash) takeNext(row, hash);
      if (nowMs() - (row.seenMs ?? 0) > SEEN_EVERY_MS) {
        row.seenMs = nowMs();
        keepSoon(row);
      }
      const fresh = mayRenew && oldUntilMs === undefined ? renewed(row) : null;
      return { ok: true, known: known(row), ...(fresh ? { newToken: fresh } : {}) };
    },
    pair: (secret, name) =>
      alone.runExclusive(async () => {
        while (tries.length > 0 && tries[0]! < nowMs() - 60_000) tries.shift();
        if (tries.length >= TRIES_A_MINUTE) return { ok: false, why: 'too-many' };
        tries.push(nowMs());
        const hash = hashOf(secret);
        await invitations.delete({ untilMs: LessThan(nowMs()) });
        const invitation = await invitations.findOne({ where: [{ linkHash: hash }, { codeHash: hash }] });
        if (!invitation || living().length >= CREDENTIALS_MAX) return { ok: false, why: 'wrong' };
        await invitations.delete({ linkHash: invitation.linkHash });
        const { role, person } = invitation;
        const { made, token } = await add({ role, person, name: name ?? invitation.name });
        return { ok: true, known: known(made), token };
      }),
    invite: async ({ role, name, person }, kind) => {
      const link = newToken();
      const code = String(randomInt(1_000_000)).padStart(6, '0');
      const untilMs = nowMs() + (kind === 'code' ? INVITATION_MS : LEAD_LINK_MS);
      await invitations.save({
        linkHash: hashOf(link),
        codeHash: kind === 'code' ? hashOf(code) : null,
        role,
        name,
        person: person ?? null,
        untilMs,
      });
      return { link, code, untilMs };
    },
    makeKey: async (role, name) => {
      if (living().length >= CREDENTIALS_MAX) return null;
      const { made, token } = await add({ role, name, person: null });
      return { id: made.id, key: token };
    },
    all: living,
    hasLead: () => living().some(({ role }) => role === 'lead'),
    change: (id, change) =>
      alone.runExclusive(async () => {
        const row = byId.get(id);
        if (!row || row.revokedMs !== null) return 'unknown';
        const isOtherRole = change.role !== undefined && change.role !== row.role;
        if (isOtherRole && isKey(row)) return 'key-role';
        if (isOtherRole && isLastLead(row)) return 'last-lead';
        await rows.save({ ...row, ...change });
        Object.assign(row, change);
        if (isOtherRole) for (const tell of ended) tell(id);
        return 'changed';
      }),
    revoke: (id) =>
      alone.runExclusive(async () => {
        const row = byId.get(id);
        if (!row || row.revokedMs !== null) return 'unknown';
        if (isLastLead(row)) return 'last-lead';
        await rows.save({ ...row, revokedMs: nowMs() });
        row.revokedMs = nowMs();
        for (const tell of ended) tell(id);
        return 'changed';
      }),
    onEnded: (listener) => void ended.push(listener),
    close: () => source.destroy(),
  };
}
