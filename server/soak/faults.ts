/** What a soak looks at in the end: the file, the served state and the client must agree. */
import {
  forgetClosed,
  holdsStation,
  reduce,
  timelineAt,
  type BarEvent,
  type BarState,
} from '@even-kettle/core/brew';
import type { Snapshot } from '@even-kettle/core/contract';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { canonical } from '../src/store/canonical';
import { openDatabase } from '../src/store/database';
import type { ScriptedBar } from './scripted-bar';
import type { ServerProcess } from './server-process';

/** What is wrong with what was kept; empty where nothing is. */
export async function faultsOf(server: ServerProcess, bar: ScriptedBar): Promise<string[]> {
  const faults: string[] = [];
  const { state: served } = (await (await fetch(`${server.url}/api/state`)).json()) as Snapshot;
  await server.kill();
  if (server.died() > 0) faults.push(`the server ended by itself ${server.died()} times`);
  const source = await openDatabase(server.file);
  const [check] = await source.query('PRAGMA integrity_check');
  if (check.integrity_check !== 'ok') faults.push(`SQLite: ${check.integrity_check}`);
  const rows = (await source.query('SELECT seq, id, body FROM event ORDER BY seq')) as {
    seq: number;
    id: string;
    body: string;
  }[];
  await source.destroy();
  const ids = new Set(rows.map(({ id }) => id));
  if (ids.size !== rows.length) faults.push(`${rows.length - ids.size} events stored twice`);
  rows.forEach(({ seq }, index) => {
    if (seq !== index + 1) faults.push(`a gap in the log at ${index + 1}`);
  });
  const lost = [...bar.acknowledged].filter((id) => !ids.has(id));
  if (lost.length > 0) faults.push(`${lost.length} acknowledged events lost`);
  const back = [...bar.refused.keys()].filter((id) => ids.has(id));
  if (back.length > 0) faults.push(`${back.length} refused events stored`);
  const { state, refused } = reduce(
    rows.map(({ body }) => JSON.parse(body) as BarEvent),
    bookOf(SCHOOLS),
  );
  if (refused.length > 0) faults.push(`${refused.length} stored events that the rules refuse`);
  faults.push(...impossible(state));
  const lastMs = rows.reduce((last, { body }) => Math.max(last, (JSON.parse(body) as BarEvent).atMs), 0);
  const same = (a: BarState, b: BarState) =>
    canonical(forgetClosed(a, lastMs)) === canonical(forgetClosed(b, lastMs));
  if (!same(state, served)) faults.push('what the server shows is not what its log makes');
  if (!same(bar.state(), served)) faults.push('the client ended with another state than the server');
  if (bar.waiting() > 0) faults.push(`${bar.waiting()} taps still wait`);
  console.log(
    `  ${rows.length} events stored, ${bar.acknowledged.size} acknowledged, ${bar.refused.size} refused and told, ${bar.tries()} posts; ${Object.keys(state.orders).length} orders, ${Object.values(state.brews).filter(({ status }) => status === 'cleaned').length} cups out`,
  );
  return faults;
}

function impossible(state: BarState): string[] {
  const brews = Object.values(state.brews);
  const held = brews.filter(holdsStation).map(({ stationId }) => stationId);
  const faults = new Set(held).size === held.length ? [] : ['two brews hold one station'];
  for (const order of Object.values(state.orders))
    for (const cup of order.cups) {
      const running = cup.brewIds.filter((id) => state.brews[id]?.status === 'running').length;
      if (running !== (cup.status === 'brewing' ? 1 : 0))
        faults.push(`cup ${cup.cupId} has ${running} running brews`);
    }
  for (const brew of brews) {
    let endMs = brew.startedMs;
    for (const { status, startMs, endMs: overMs } of timelineAt(brew, brew.lastMs)) {
      if (status !== 'done' || brew.abandoned) continue;
      if (startMs < endMs || overMs < startMs) faults.push(`${brew.id} runs backwards`);
      endMs = overMs;
    }
  }
  return faults;
}
