/** What a device shows that the bar does not know, and how it comes in. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, fireEvent, screen } from '@testing-library/react-native';
import { loadSchemas } from '../../client/load-schemas';
import { Refused } from '../../client/request';
import { showPage, type, viewOf } from '../../testing/bar';
import { PairPlace } from './pair-place';

jest.mock('expo-router', () => ({ router: { replace: () => undefined } }));
beforeAll(loadSchemas);

const globals = globalThis as unknown as { window: unknown };
function show(shut: 'not-paired' | 'revoked', { hash = '', waiting = 0 } = {}) {
  const asked: unknown[] = [];
  const replaced: string[] = [];
  globals.window = Object.assign(globals.window ?? {}, {
    location: { hash, pathname: '/pair' },
    history: {
      state: null,
      replaceState: (_state: unknown, _title: string, to: string) => void replaced.push(to),
    },
  });
  const pair = async (secret: string, name: string): Promise<never> => {
    asked.push([secret, name]);
    const detail = 'This code or link does not work, or not any more.';
    throw new Refused(403, { type: '', title: '', status: 403, detail });
  };
  const client = new QueryClient({ defaultOptions: { mutations: { gcTime: Infinity } } });
  showPage(
    <QueryClientProvider client={client}>
      <PairPlace />
    </QueryClientProvider>,
    { view: viewOf({ shut, waiting }), api: { pair } },
  );
  return { asked, replaced };
}
const pair = () => act(async () => fireEvent.press(screen.getByTestId('pair')));

test('six digits are sent, with a name or without; a refusal is said and what was typed stays', async () => {
  const { asked } = show('not-paired', { waiting: 2 });
  expect(screen.getByText('2 taps kept here are sent as soon as it is paired.')).toBeTruthy();
  await act(async () => type('Code, six digits', '12 34'));
  await pair();
  expect(asked).toEqual([]);
  await act(async () => type('Code, six digits', '123 456'));
  await pair();
  await act(async () => type('A name for it (may be left out)', 'Window'));
  await pair();
  expect(asked).toEqual([
    ['123456', ''],
    ['123456', 'Window'],
  ]);
  expect(await screen.findByText(/does not work/)).toBeTruthy();
  expect(screen.getByDisplayValue('123456')).toBeTruthy();
});

test('a link’s secret leaves the address at once, and wants no code', async () => {
  const { asked, replaced } = show('not-paired', { hash: '#a-long-secret' });
  expect(replaced).toEqual(['/pair']);
  expect(screen.queryByTestId('pair-code')).toBeNull();
  await pair();
  expect(asked).toEqual([['a-long-secret', '']]);
});

test('a device that was removed is told so', () => {
  show('revoked');
  expect(screen.getByText('This device was removed from the bar')).toBeTruthy();
});
