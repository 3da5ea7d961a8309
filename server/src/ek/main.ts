/** `ek`: see program.ts, and lab.ts for what takes longer. */
import { readFileSync, statSync } from 'node:fs';
import { runLab } from './lab';
import { runEk } from './program';
import { STDIN, type Io } from './reading';

function standardInput() {
  const text = readFileSync(0, 'utf8');
  return { size: Buffer.byteLength(text), text: () => text };
}

const io: Io = {
  out: (text) => void process.stdout.write(text),
  err: (text) => void process.stderr.write(text),
  readFile: (path) =>
    path === STDIN ? standardInput() : { size: statSync(path).size, text: () => readFileSync(path, 'utf8') },
  nowMs: () => performance.now(),
};
const [command, ...rest] = process.argv.slice(2);
process.exitCode = command === 'lab' ? await runLab(rest, io) : runEk(process.argv.slice(2), io);
