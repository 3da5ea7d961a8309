/** Makes the databases that tests begin with once a run: the demo's two weeks, its bench alone, and a plain bench. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeDemo } from './bar';

export default async function globalSetup() {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-e2e-made-once-'));
  await Promise.all([
    makeDemo(join(folder, 'weeks.sqlite'), 'weeks'),
    makeDemo(join(folder, 'bench.sqlite'), 'none'),
    makeDemo(join(folder, 'plain.sqlite'), 'none', 'plain'),
  ]);
  process.env['E2E_MADE_ONCE'] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
