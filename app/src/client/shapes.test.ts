/** What a device kept is read only where it is whole: checked on a bar in mid-brew, and on the same bar with one part harmed. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { EMPTY_BAR, reduce } from '@even-kettle/core/brew';
import { buildProblem, solve } from '@even-kettle/core/plan';
import { SCHOOLS } from '@even-kettle/core/recipe';
import { TEST_BAR, viewOf } from '../testing/bar';
import { at, book, done, firstWater, prep, started, taken } from '../testing/cone';
import { agendaNow } from './agenda-now';
import { upgradedKept } from './kept-upgrades';
import type { OfflineSnapshot } from './offline-snapshot';
import { isOfflineSnapshot } from './shapes';

function whole(): OfflineSnapshot {
  const events = [taken('A', 'window'), taken('B'), started('A'), ...prep, firstWater, done('bloom', 107)];
  const { state } = reduce(events, book, EMPTY_BAR);
  const plan = solve(buildProblem(state, TEST_BAR, book, Math.ceil(at(108) / 1000)).problem);
  const clock = { barMs: at(108), rate: 1, wallMs: at(108) };
  // As the browser's own copy gives it back.
  return structuredClone({ seq: 12, state, bar: TEST_BAR, recipes: [...SCHOOLS], plan, clock });
}

test('a bar in mid-brew is read as it was kept', () => {
  expect(isOfflineSnapshot(whole())).toBe(true);
  expect(isOfflineSnapshot({ ...whole(), plan: null })).toBe(true);
});

test.each<[string, (kept: OfflineSnapshot) => unknown]>([
  ['nothing', () => null],
  ['text', () => 'bar'],
  ['an older make without its recipes', ({ recipes: _recipes, ...rest }) => rest],
  [
    'a cup of a status that there is not',
    (kept) => (Object.assign(kept.state.orders['A']!.cups[0]!, { status: 'lost' }), kept),
  ],
  [
    'a brew without its card',
    (kept) => (
      delete (kept.state.brews['a1.1'] as Partial<OfflineSnapshot['state']['brews'][string]>).card,
      kept
    ),
  ],
  [
    'a step whose length is no number',
    (kept) => ((kept.state.brews['a1.1']!.card.steps[3]!.durationS = NaN), kept),
  ],
  [
    'a plan whose starts are text',
    (kept) => ({ ...kept, plan: { ...kept.plan, starts: { 'a1.1/serve': 'soon' } } }),
  ],
  [
    'a station without a brewer',
    (kept) => ({ ...kept, bar: { ...kept.bar, stations: [{ id: 'x', name: 'X' }] } }),
  ],
])('%s is set aside', (_what, harm) => {
  expect(isOfflineSnapshot(harm(whole()))).toBe(false);
});

test('what a device kept with version 0.1, in the middle of a shift, is read by this one, and the bar goes on from it', () => {
  const file = join(__dirname, 'fixtures', 'kept-by-version-0.1.json.gz');
  const kept = upgradedKept(JSON.parse(gunzipSync(readFileSync(file)).toString()));
  expect(upgradedKept(kept)).toEqual(kept);
  if (!isOfflineSnapshot(kept)) throw new Error('It is set aside as unreadable.');
  const view = viewOf({ state: kept.state, bar: kept.bar, plan: kept.plan });
  const running = Object.values(kept.state.brews).filter(({ status }) => status === 'running');
  expect(running.length).toBeGreaterThan(0);
  const asked = agendaNow(view, kept.clock.barMs);
  for (const { id } of running) expect(asked.map(({ brewId }) => brewId)).toContain(id);
  const waits = Object.values(kept.state.orders).filter(({ cups }) =>
    cups.every(({ status }) => status === 'waiting'),
  );
  expect(kept.state.houseEvents!.length).toBeGreaterThan(0);
  expect(
    Object.values(kept.state.orders)
      .flatMap(({ cups }) => cups)
      .every(({ attempts }) => attempts),
  ).toBe(true);
  expect(asked.some(({ order }) => waits.some(({ id }) => id === order.id))).toBe(true);
});
