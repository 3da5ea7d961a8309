/** A planner's worker that does not come to an end is ended, and the next job has a new one. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { PlanProblem } from '@even-kettle/core/plan';
import { workerSolver } from './solver';

const folder = mkdtempSync(join(tmpdir(), 'even-kettle-solver-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** However slow the machine is, a worker that answers has answered by then. */
const LONG_MS = 80_000;

const problem = (now: number): PlanProblem => ({
  format: 'even-kettle/plan-problem@1',
  now,
  hands: 1,
  tools: {},
  orders: [],
  brews: [],
  started: {},
  ended: {},
  frozen: {},
});

test('a job that hangs fails by its deadline, and the one after it is answered by another worker', async () => {
  const file = join(folder, 'hangs.mjs');
  writeFileSync(
    file,
    `import { parentPort } from 'node:worker_threads';
     parentPort.on('message', ({ job, asked: { problem } }) => {
       if (problem.now === 1) for (;;);
       parentPort.postMessage({ job, answer: { plan: null, cost: 7, standsCost: 7 } });
     });`,
  );
  const solver = workerSolver(pathToFileURL(file), 200);
  await expect(solver.solve(problem(1), null, 10)).rejects.toThrow('had not answered');
  expect(await solver.solve(problem(2), null, LONG_MS)).toMatchObject({ cost: 7 });
  await solver.close();
});

test('a worker that dies fails the job that it had, and only that', async () => {
  const file = join(folder, 'dies.mjs');
  writeFileSync(
    file,
    `import { parentPort } from 'node:worker_threads';
     parentPort.on('message', ({ job, asked: { problem } }) => {
       if (problem.now === 1) process.exit(3);
       parentPort.postMessage({ job, answer: { plan: null, cost: 7, standsCost: 7 } });
     });`,
  );
  const solver = workerSolver(pathToFileURL(file), 2000);
  await expect(solver.solve(problem(1), null, LONG_MS)).rejects.toThrow('ended with code 3');
  expect(await solver.solve(problem(2), null, LONG_MS)).toMatchObject({ cost: 7 });
  await solver.close();
});

test('a solver that is closed has no answer, to what it was asked before and after', async () => {
  const file = join(folder, 'waits.mjs');
  writeFileSync(
    file,
    `import { parentPort } from 'node:worker_threads'; parentPort.on('message', () => {});`,
  );
  const solver = workerSolver(pathToFileURL(file), 2000);
  const before = solver.solve(problem(1), null, 10);
  await solver.close();
  expect([await before, await solver.solve(problem(2), null, 10)]).toEqual([null, null]);
});
