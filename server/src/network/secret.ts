/** Secrets of the server's own, made once and kept beside its keys. */
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export function secretIn(folder: string, name: string): string {
  const file = join(folder, name);
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  const made = randomBytes(32).toString('base64url');
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    writeFileSync(file, `${made}\n`, { mode: 0o600 });
  } catch {
    // A full disk: it lasts until the next start.
  }
  return made;
}
