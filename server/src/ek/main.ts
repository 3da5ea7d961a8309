/** `ek`: see program.ts. */
import { readFileSync, statSync } from 'node:fs';
import { runEk } from './program';

process.exitCode = runEk(process.argv.slice(2), {
  out: (text) => void process.stdout.write(text),
  err: (text) => void process.stderr.write(text),
  readFile: (path) => ({ size: statSync(path).size, text: () => readFileSync(path, 'utf8') }),
  nowMs: () => performance.now(),
});
