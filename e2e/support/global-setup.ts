/** Makes the demo's two weeks, and a plain bench, once a run; each test that wants them begins from a copy. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeDemo } from './bar';

export default async function globalSetup() {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-e2e-weeks-'));
  const file = join(folder, 'weeks.sqlite');
  await makeDemo(file, 'weeks');
  const plain = join(folder, 'plain.sqlite');
  await makeDemo(plain, 'none', 'plain');
  process.env.E2E_PLAIN = plain;
  process.env.E2E_DEMO_WEEKS = file;
  return () => rmSync(folder, { recursive: true, force: true });
}
