/** What is answered on the first day becomes a bench: named, numbered, and what was there before stays. */
import { NEW_BENCH } from '../../testing/bar';
import { KETTLES, kettlesFor, lacks, needsFlame, stationsFor } from './bench-of';

const ids = () => {
  let n = 0;
  return () => `id-${(n += 1)}`;
};
const named = (n: number) => `Kettle ${n}`;

test('two of a brewer are numbered, one is not; fewer takes the last away, more keeps what somebody has renamed', () => {
  const first = stationsFor([], { 'cone-m': 2, sock: 1 }, ids());
  expect(first.map(({ name }) => name)).toEqual(['Cone M 1', 'Cone M 2', 'Cloth sock']);
  const renamed = first.map((station) =>
    station.name === 'Cone M 1' ? { ...station, name: 'By the window' } : station,
  );
  const more = stationsFor(renamed, { 'cone-m': 3, sock: 1 }, ids());
  expect(more.map(({ name }) => name)).toEqual(['By the window', 'Cone M 2', 'Cloth sock', 'Cone M 1']);
  expect(new Set(more.map(({ name }) => name)).size).toBe(4);
  expect(stationsFor(renamed, { 'cone-m': 1, sock: 0 }, ids()).map(({ name }) => name)).toEqual([
    'By the window',
  ]);
});

test('kettles come by their kinds; one that is there keeps its name and its own figures', () => {
  const own = { id: 'k', name: 'Kettle 1', powerW: 1850, sizeMl: 1700, maxFlowGPerS: 8 };
  const kettles = kettlesFor([own], { small: 1, usual: 1, large: 1 }, ids(), named);
  expect(kettles).toEqual([
    own,
    { id: 'id-1', name: 'Kettle 2', ...KETTLES.small },
    { id: 'id-2', name: 'Kettle 3', ...KETTLES.usual },
  ]);
  expect(kettlesFor([own], { small: 0, usual: 0, large: 0 }, ids(), named)).toEqual([]);
});

test('a bar without anything lacks all of it; a siphon needs a flame, a cone none', () => {
  expect(lacks(NEW_BENCH)).toEqual(['brewer', 'kettle', 'grinder', 'coffee']);
  const withBrewer = (brewerId: string) => ({ ...NEW_BENCH, stations: [{ id: 's', name: 'S', brewerId }] });
  expect(lacks(withBrewer('cone-m'))).toEqual(['kettle', 'grinder', 'coffee']);
  expect([needsFlame(withBrewer('cone-m')), needsFlame(withBrewer('siphon-m'))]).toEqual([false, true]);
});
