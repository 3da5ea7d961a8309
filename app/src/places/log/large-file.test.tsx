/** A large file that is read in. */
import { screen } from '@testing-library/react-native';
import type { ImportJob, Imports } from '@even-kettle/core/contract';
import type { Api } from '../../client/api';
import { press } from '../../testing/bar';
import { answered, showLogPage } from '../../testing/log';
import { LargeFileCard } from './large-file';

jest.mock('expo-router', () => ({
  router: {
    push: () => undefined,
    navigate: () => undefined,
    setParams: () => undefined,
  },
  useLocalSearchParams: () => ({}),
}));

const JOB: ImportJob = {
  id: 'i1',
  kind: 'log',
  name: 'before.csv',
  bytes: 100,
  phase: 'looked',
  share: 1,
  found: {
    rows: 1204,
    faulty: 2,
    shows: [{ line: 2, shows: 'Saltmarsh, cone-thirds, 18 g' }],
    faults: [{ line: 7, reason: 'roast must be one of very light, light.' }],
    fromMs: Date.UTC(2026, 0, 3, 12),
    toMs: Date.UTC(2026, 10, 20, 12),
  },
  taken: 0,
  known: 0,
  reason: null,
};

test('a log from elsewhere shows what was found and what is wrong; it is taken without the faulty rows, or stopped midway', async () => {
  let imports: Imports = { current: JOB, kept: [] };
  const said: unknown[] = [];
  const api: Partial<Api> = {
    imports: () => Promise.resolve(imports),
    takeFile: (id, leaveOut) => {
      said.push(['take', id, leaveOut]);
      imports = { current: { ...JOB, phase: 'taking', share: 0.424 }, kept: [] };
      return Promise.resolve(imports.current!);
    },
    endFile: (id) => {
      said.push(['end', id]);
      imports = { current: null, kept: [{ id: 'old', name: 'march.csv', brews: 30, atMs: 0 }] };
      return Promise.resolve(undefined);
    },
  };
  const card = (
    <LargeFileCard kind="log" title="Log from elsewhere">
      columns
    </LargeFileCard>
  );
  await showLogPage(card, api);
  expect(screen.getByText(/^before.csv: 1,204 brews, .*2026 to .*2026$/)).toBeTruthy();
  expect(screen.getByText('Not so: roast must be one of very light, light.')).toBeTruthy();
  expect(screen.getByText('… and 1 more row that cannot be taken.')).toBeTruthy();
  press('Import 1,202, skip 2');
  await answered();
  expect(screen.getByText('42 %')).toBeTruthy();
  press('Stop');
  await answered();
  press('Remove: march.csv');
  press('Yes, remove the brews of march.csv');
  await answered();
  expect(said).toEqual([
    ['take', 'i1', true],
    ['end', 'i1'],
    ['end', 'old'],
  ]);
  imports = {
    current: { ...JOB, phase: 'refused', found: null, reason: 'There is no line in it.' },
    kept: [],
  };
  await showLogPage(card, api);
  expect(screen.getByText('Not imported: There is no line in it.')).toBeTruthy();
});
