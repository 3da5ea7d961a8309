/** Devices and keys on the Bench: who may come in, and what is told of it. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, screen, waitFor } from '@testing-library/react-native';
import type { Access } from '@even-kettle/core/contract';
import type { Api } from '../../client/api';
import { loadSchemas } from '../../client/load-schemas';
import { Refused } from '../../client/request';
import { TEST_BAR, choose, press, showPage, type } from '../../testing/bar';
import { AccessCards } from './access-card';

jest.mock('expo-clipboard', () => ({ setStringAsync: () => Promise.resolve(true) }));
beforeAll(loadSchemas);

const PEOPLE = { ...TEST_BAR, people: [{ id: 'noor', name: 'Noor' }] };
const device = (id: string, change: object = {}): Access['devices'][number] => ({
  id,
  name: id,
  role: 'barista',
  madeMs: 0,
  seenMs: null,
  here: false,
  ...change,
});
async function show(change: Partial<Access> = {}, api: Partial<Api> = {}) {
  const access: Access = {
    pairs: true,
    addresses: ['https://192.0.2.7:4173', 'https://even-kettle.local:4173'],
    fingerprint: 'AA:BB',
    devices: [device('Office', { role: 'lead', here: true }), device('Phone', { person: 'noor' })],
    ...change,
  };
  const client = new QueryClient({
    defaultOptions: { queries: { gcTime: Infinity, retry: false }, mutations: { gcTime: Infinity } },
  });
  showPage(
    <QueryClientProvider client={client}>
      <AccessCards bar={PEOPLE} />
    </QueryClientProvider>,
    { api: { access: async () => access, ...api } },
  );
  await screen.findByText('Keys for programs');
}
const pressed = (label: string) => act(async () => press(label));

test('the address, the fingerprint, and each device with its role and person', async () => {
  await show();
  expect(screen.getByText('https://192.0.2.7:4173')).toBeTruthy();
  expect(screen.getByText(/http:\/\/192\.0\.2\.7:4173\/trust/)).toBeTruthy();
  expect(screen.getByText('AA BB')).toBeTruthy();
  expect(screen.getByText('Office (this one)')).toBeTruthy();
  expect(screen.getByText('Barista · Noor · not seen yet')).toBeTruthy();
});

test('a code is shown for a device of a role and a person; the name that it wants is said', async () => {
  const asked: unknown[] = [];
  await show(
    {},
    {
      invite: async (body) => {
        asked.push(body);
        return { code: '012345', link: 'https://192.0.2.7:4173/pair#secret', untilMs: Date.now() };
      },
    },
  );
  await pressed('Show a code');
  expect(asked).toEqual([]);
  expect(screen.getByText('Type a name of up to 40 characters.')).toBeTruthy();
  await act(async () => type('What the device is called', 'Window phone'));
  choose('Whose device it is', 'noor');
  await pressed('Show a code');
  expect(asked).toEqual([{ role: 'barista', name: 'Window phone', person: 'noor' }]);
  expect(await screen.findByText('012 345')).toBeTruthy();
  // The link’s secret stands in the picture alone, where nobody reads it over a shoulder.
  expect(screen.queryByText(/secret/)).toBeNull();
});

test('a device is removed; where the server refuses, it is said why', async () => {
  const gone: string[] = [];
  const refusal = { type: '', title: '', status: 409, detail: 'This is the last device of the lead.' };
  await show(
    {},
    {
      revoke: async (id) => {
        if (id === 'Office') throw new Refused(409, refusal);
        gone.push(id);
        return undefined;
      },
    },
  );
  await pressed('Change Phone');
  await pressed('Remove Phone from the bar');
  expect(gone).toEqual(['Phone']);
  await pressed('Change Office');
  await pressed('Remove Office from the bar');
  await waitFor(() => expect(screen.getByText('This is the last device of the lead.')).toBeTruthy());
});

test('a key is made for a named program, and shown once', async () => {
  const asked: unknown[] = [];
  await show({}, { makeKey: async (body) => (asked.push(body), { id: 'k', key: 'the-key' }) });
  await act(async () => type('What the program is called', 'Counter till'));
  await pressed('Make a key');
  expect(asked).toEqual([{ role: 'till', name: 'Counter till' }]);
  expect(await screen.findByText('the-key')).toBeTruthy();
  await pressed('Copy');
  expect(await screen.findByText('Copied')).toBeTruthy();
  await pressed('Done');
  expect(screen.queryByText('the-key')).toBeNull();
});

test('a bar that is served to its own machine alone pairs nobody, and says how it is opened', async () => {
  await show({ pairs: false, addresses: [], fingerprint: null, devices: [] });
  expect(screen.getByText(/Start it with --network/)).toBeTruthy();
  expect(screen.queryByText('Show a code')).toBeNull();
});
