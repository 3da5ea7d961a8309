/** What a screen says happened gets its id, its time and its person in one place. */
import { act } from '@testing-library/react-native';
import { Text } from 'react-native';
import { press, showPage } from '../testing/bar';
import { setDevice } from './settings';
import { useAct } from './use-act';

function Boil() {
  const tell = useAct();
  return (
    <Text
      accessibilityLabel="Boil both"
      onPress={() =>
        tell([
          { type: 'cloth-boiled', clothId: 'one' },
          { type: 'cloth-boiled', clothId: 'two' },
        ])
      }
    >
      Boil
    </Text>
  );
}

test('events of one tap have ids of their own, one time, and the person whose device it is', () => {
  const { acted } = showPage(<Boil />, { nowMs: 7000 });
  press('Boil both');
  act(() => setDevice({ person: 'noor' }));
  press('Boil both');
  act(() => setDevice({ person: null }));
  expect(acted.map(({ type, atMs, by }) => [type, atMs, by])).toEqual([
    ['cloth-boiled', 7000, undefined],
    ['cloth-boiled', 7000, undefined],
    ['cloth-boiled', 7000, 'noor'],
    ['cloth-boiled', 7000, 'noor'],
  ]);
  expect(new Set(acted.map(({ id }) => id)).size).toBe(4);
});
