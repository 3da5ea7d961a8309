import { reduce } from '@even-kettle/core/brew';
import { viewOf } from '../testing/bar';
import { at, book, started, taken } from '../testing/cone';
import { agendaNow } from './agenda-now';

test('all who ask in one turn of the clock get the same agenda; the next turn, and another bar, have their own', () => {
  const view = viewOf({ state: reduce([taken('A'), started('A')], book).state });
  const first = agendaNow(view, at(5));
  expect(first[0]).toMatchObject({ brewId: 'a1.1', step: { kind: 'fill' } });
  expect(agendaNow(view, at(5.012))).toBe(first);
  expect(agendaNow(view, at(5.2))).not.toBe(first);
  // A clock that was put right is not behind its own agenda.
  expect(agendaNow(view, at(4))).not.toBe(first);
  expect(agendaNow(viewOf(), at(4))).toEqual([]);
});
