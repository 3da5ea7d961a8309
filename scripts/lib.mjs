/** Small helpers that the other scripts share. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');
export const say = (text) => console.log(`\n▸ ${text}`);

/** Runs a command in the project and gives its exit code; its output is shown as it comes. */
export function run(command, args, { env = {}, cwd = root, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd,
      stdio: quiet ? 'ignore' : 'inherit',
      env: { ...process.env, ...env },
    });
    child.once('error', reject);
    child.once('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

/** As `run`, but a failure ends the script. */
export async function must(command, args, options) {
  const code = await run(command, args, options);
  if (code !== 0) {
    console.error(`\n${command} ${args.join(' ')} failed (exit ${code}).`);
    process.exit(code);
  }
}

/** The path of a tool that npm installed. Called directly, so that it ends when the script ends. */
export const bin = (name) => join(root, 'node_modules', '.bin', name);

/** A digest of files and folders, to know whether something has to be made again. */
export function digestOf(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) if (!SKIPPED.has(name)) add(join(path, name));
    } else {
      hash.update(relative(root, path)).update(readFileSync(path));
    }
  };
  for (const path of paths) add(join(root, path));
  return hash.digest('hex');
}
const SKIPPED = new Set(['.built', 'node_modules', 'dist', '.expo', 'expo-env.d.ts', 'data']);

/** Runs `make` unless the stamp says that it was done for this digest. Tells whether it ran. */
export async function unlessDone(stamp, digest, make) {
  const file = join(root, stamp);
  if (existsSync(file) && readFileSync(file, 'utf8') === digest) return false;
  await make();
  writeFileSync(file, digest);
  return true;
}
