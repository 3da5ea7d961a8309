import type { Bar } from './bar';
import { rebaseChange } from './rebase';

const coffee = (id: string, notes = '') => ({ id, name: id, roast: 'light' as const, notes, decaf: false });
const bar = (...coffees: Bar['coffees']): Bar => ({
  name: 'Bar',
  altitudeM: 0,
  roomC: 21,
  units: { mass: 'g', temperature: 'C', volume: 'ml' },
  hands: 1,
  stations: [{ id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' }],
  grinders: [{ id: 'g', name: 'Grinder', points: [] }],
  kettles: [{ id: 'k', name: 'Kettle', powerW: 1200, sizeMl: 1000 }],
  tapC: 90,
  burners: 1,
  water: { name: 'Tap' },
  coffees,
  people: [],
  cloths: [],
  tasteAfterMin: 7,
});

test('two devices that each add a coffee have both of them', () => {
  const base = bar(coffee('a'));
  const now = bar(coffee('a'), coffee('b'));
  expect(rebaseChange(base, { coffees: [...base.coffees, coffee('c')] }, now).coffees).toEqual([
    coffee('a'),
    coffee('b'),
    coffee('c'),
  ]);
});

test('one that is removed here stays removed, and what was changed there of another stays changed', () => {
  const base = bar(coffee('a'), coffee('b'));
  const now = bar(coffee('a'), coffee('b', 'plum'));
  expect(rebaseChange(base, { coffees: [coffee('b')] }, now).coffees).toEqual([coffee('b', 'plum')]);
});

test('of one coffee that both changed, each field is as the one who changed it has it', () => {
  const base = bar(coffee('a'));
  const now = bar({ ...coffee('a'), roastedOn: '2026-11-01' });
  expect(rebaseChange(base, { coffees: [coffee('a', 'plum')] }, now).coffees).toEqual([
    { ...coffee('a', 'plum'), roastedOn: '2026-11-01' },
  ]);
});

test('two quick changes of units are both kept', () => {
  const base = bar(coffee('a'));
  const now: Bar = { ...base, units: { ...base.units, mass: 'oz' } };
  expect(rebaseChange(base, { units: { ...base.units, temperature: 'F' } }, now)).toEqual({
    units: { mass: 'oz', temperature: 'F', volume: 'ml' },
  });
});
