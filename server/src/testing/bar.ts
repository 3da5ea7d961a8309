/** A real server over a real SQLite file, anew for each test, and what is posted to it. */
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { solve, type PlanProblem } from '@even-kettle/core/plan';
import { httpApp } from '../http/app';
import { openBar, type BarServer } from '../server';
import { openDatabase } from '../store/database';

export const solver = {
  solve: (problem: PlanProblem) => {
    const plan = solve(problem);
    return Promise.resolve({ plan, cost: plan.cost, standsCost: plan.cost });
  },
  close: () => Promise.resolve(),
};
export let folder: string;
export let bar: BarServer;
export let http: Server;

/** @param anew in a folder of its own, as a bar that has nothing yet */
export async function open(clockRate = 1, anew = false): Promise<void> {
  if (anew) {
    rmSync(folder, { recursive: true });
    folder = mkdtempSync(join(tmpdir(), 'even-kettle-'));
  }
  bar = await openBar({
    source: await openDatabase(join(folder, 'bar.sqlite')),
    solver,
    clockRate,
    warn: () => undefined,
  });
  http = createServer(
    httpApp(bar, {
      appDir: null,
      logger: pino({ level: 'silent' }),
      version: 'test',
      requestsPerMinute: 10_000,
    }),
  );
  await new Promise<void>((resolve) => http.listen(0, '127.0.0.1', resolve));
}
export async function close(): Promise<void> {
  http.closeAllConnections();
  await new Promise((resolve) => http.close(resolve));
  await bar.close();
}
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'even-kettle-'));
  await open();
});
afterEach(async () => {
  await close();
  rmSync(folder, { recursive: true });
});

let ids = 0;
export const newId = () => `01890000-0000-7000-8000-${String((ids += 1)).padStart(12, '0')}`;
export const now = () => bar.clock.nowMs();
export const cup = (cupId: string, change: object = {}) => ({
  cupId,
  recipeId: 'cone-thirds',
  recipeVersion: 1,
  coffee: 'Saltmarsh',
  roast: 'light',
  cupMl: 250,
  ...change,
});
export const order = (orderId: string, ...cups: object[]) => ({
  id: newId(),
  type: 'order-taken',
  atMs: now(),
  orderId,
  cups,
});
export const start = (cupId: string, orderId: string, change: object = {}) => ({
  id: newId(),
  type: 'brew-started',
  atMs: now(),
  brewId: `${cupId}.1`,
  orderId,
  cupId,
  stationId: 'cone-1',
  stationName: 'Cone 1',
  brewerId: 'cone-m',
  altitudeM: 0,
  kettlePowerW: 1200,
  kettleFilledAtC: 90,
  ...change,
});
export const done = (brewId: string, stepId: string, change: object = {}) => ({
  id: newId(),
  type: 'step-done',
  atMs: now(),
  brewId,
  stepId,
  ...change,
});
export const post = (...events: object[]) => request(http).post('/api/events').send({ events });
export const stored = async () => (await bar.log.after(0)).length;
