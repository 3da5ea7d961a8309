/** The bench: what stands on it is opened, changed and set; what is wrong is told at its line. */
import { act, screen, waitFor } from '@testing-library/react-native';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { BarChange } from '@even-kettle/core/contract';
import { Refused } from '../../client/request';
import { OUNCES, TEST_BAR, choose, press, showPage, tabStorage, type, viewOf } from '../../testing/bar';
import { BenchPlace } from './bench-place';

jest.mock('expo-router', () => ({
  router: { replace: () => undefined },
  useLocalSearchParams: () => ({}),
}));

function show(part: Parameters<typeof viewOf>[0] = {}, refuse?: { field: string; reason: string }) {
  const changes: BarChange[] = [];
  const changeBar = async (change: BarChange) => {
    changes.push(change);
    if (refuse)
      throw new Refused(422, {
        type: '',
        title: '',
        status: 422,
        detail: `${refuse.field}: ${refuse.reason}`,
        errors: [{ ...refuse, code: 'custom' }],
      });
    return { ...TEST_BAR, ...change } as typeof TEST_BAR;
  };
  const page = (
    <QueryClientProvider
      client={
        new QueryClient({
          defaultOptions: { queries: { gcTime: Infinity }, mutations: { gcTime: Infinity } },
        })
      }
    >
      <BenchPlace />
    </QueryClientProvider>
  );
  showPage(page, { view: viewOf(part), api: { changeBar, access: unanswered, copies: unanswered } });
  return changes;
}
/** What these cards ask of the server is not looked at here. */
const unanswered = () => new Promise<never>(() => undefined);

beforeEach(() => void tabStorage());

// What is typed is judged a moment later.
const pressed = async (label: string) => act(async () => press(label));
const typed = async (label: string, text: string) => act(async () => type(label, text));

test('altitude, room and water are set together, and what the altitude does is said at once', async () => {
  const changes = show();
  await typed('Altitude, m', '2150');
  expect(screen.getByText('Water boils at 92.9 °C here.')).toBeTruthy();
  await typed('Room, °C', '18');
  await typed('Water', 'Spring');
  await pressed('Save place and water');
  expect(changes).toEqual([{ altitudeM: 2150, roomC: 18, water: { name: 'Spring' } }]);
  await typed('Altitude, m', '9000');
  expect(screen.getByText('Altitude: must be at most 5000 m')).toBeTruthy();
  await pressed('Save place and water');
  expect(changes).toHaveLength(1);
});

test('a coffee is added with its roast and day, marked decaf, and set with the others', async () => {
  const changes = show();
  await pressed('A coffee');
  await typed('Name', 'Ebb');
  choose('Roast', 'dark');
  await typed('Roasted on', '2026-11-20');
  await pressed('decaf');
  await typed('Steps off on the Grinder', '-1.5');
  await pressed('Save coffees');
  expect(changes).toHaveLength(1);
  expect(changes[0]!.coffees).toHaveLength(3);
  expect(changes[0]!.coffees![2]).toMatchObject({
    name: 'Ebb',
    roast: 'dark',
    roastedOn: '2026-11-20',
    decaf: true,
    grindOffsets: { g: -1.5 },
  });
});

test('what was found good for a coffee with a recipe is seen at the coffee, and can be removed', async () => {
  const [saltmarsh, slack] = TEST_BAR.coffees;
  const recipeChanges = { 'cone-thirds': { ratioBy: -0.5, waterByC: 2, grindBy: { g: 1.5 } } };
  const changes = show({ bar: { ...TEST_BAR, coffees: [{ ...saltmarsh!, recipeChanges }, slack!] } });
  await pressed('Open Saltmarsh');
  expect(
    screen.getByText('With Bloom and three pours: ratio −0.5, water +2 °C, Grinder +1.5 steps'),
  ).toBeTruthy();
  await pressed('Remove the changes with Bloom and three pours');
  expect(screen.queryByText(/^With Bloom/)).toBeNull();
  await pressed('Save coffees');
  expect(changes[0]!.coffees![0]).toEqual({ ...saltmarsh, recipeChanges: {} });
});

test('stations are counted by brewer, changed and taken off; leaving keeps them as they were', async () => {
  const changes = show();
  expect(screen.getByText('1 × Cone M, 1 × Cloth sock, 1 × Siphon M, 1 × Press 350 ml')).toBeTruthy();
  await pressed('Open Sock');
  await pressed('Take Sock off the bench');
  expect(screen.queryByLabelText('Open Sock')).toBeNull();
  // What was changed is not thrown away by one tap that went astray.
  await pressed('Cancel');
  await pressed('Keep editing');
  expect(screen.queryByLabelText('Open Sock')).toBeNull();
  await pressed('Cancel');
  await pressed('Discard');
  choose('Brewer', 'flat');
  await pressed('Save stations');
  expect(changes[0]!.stations!.map(({ brewerId }) => brewerId)).toEqual([
    'cone-m',
    'flat',
    'siphon-m',
    'press-350',
  ]);
});

test('what was being changed on the bench outlives leaving the place and reloading, until it is set', async () => {
  show();
  await typed('Altitude, m', '640');
  await pressed('A coffee');
  await typed('Name', 'Ebb');
  const changes = show();
  expect(screen.getByLabelText('Altitude, m').props.value).toBe('640');
  expect(screen.getByText('Ebb')).toBeTruthy();
  await pressed('Save coffees');
  await pressed('Save place and water');
  expect(changes).toMatchObject([{ coffees: [{}, {}, { name: 'Ebb' }] }, { altitudeM: 640 }]);
  show();
  expect(screen.queryByText('Ebb')).toBeNull();
  expect(screen.getByLabelText('Altitude, m').props.value).toBe('0');
});

test('a grinder’s points that make no sense are told at the grinder', async () => {
  const changes = show(
    {},
    { field: 'grinders.0.points', reason: 'Two points have the same band; keep one of them.' },
  );
  await pressed('Open Grinder');
  await pressed('Another point');
  await pressed('Save grinders');
  await waitFor(() =>
    expect(screen.getByText('Two points have the same band; keep one of them.')).toBeTruthy(),
  );
  expect(changes[0]!.grinders![0]!.points).toHaveLength(3);
  // The draft is still there to be mended.
  await pressed('Remove point 3');
  expect(screen.queryByText('Two points have the same band; keep one of them.')).toBeNull();
});

test('a kettle learns how it cools from two readings, in the bar’s own degrees', async () => {
  const changes = show({ bar: { ...TEST_BAR, units: OUNCES } });
  await pressed('Open Kettle');
  expect(screen.getByText(/k = 0.016 a minute with 450 g in it \(default\)/)).toBeTruthy();
  await typed('First, °F', '204.8');
  await typed('Then, °F', '212');
  await pressed('Calculate');
  expect(screen.getByText(/fall towards the room/)).toBeTruthy();
  await typed('Then, °F', '197.6');
  await pressed('Calculate');
  // ln((96 - 21) / (92 - 21)) / 4
  expect(screen.getByText(/k = 0.0137 a minute with 450 g in it \(learnt\)/)).toBeTruthy();
  await pressed('Save kettles');
  expect(changes[0]!.kettles![0]).toMatchObject({ coolingPerMin: 0.0137, sizeMl: 1200 });
});

test('units are set for every device at once', async () => {
  const changes = show();
  await pressed('oz');
  await pressed('°F');
  await act(async () => undefined);
  expect(changes).toEqual([
    { units: { ...TEST_BAR.units, mass: 'oz' } },
    { units: { ...TEST_BAR.units, temperature: 'F' } },
  ]);
});
