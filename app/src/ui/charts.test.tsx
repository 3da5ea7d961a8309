/** Charts are read by key and by finger; the table behind them is sorted and paged. */
import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { Text } from 'react-native';
import { ThemeProvider } from './use-theme';
import { ChartReader, nearest, type Reading } from './chart-reader';
import { Table } from './table';

const READINGS: Reading[] = [10, 60, 200].map((x, n) => ({ x, y: 20, says: `reading ${n + 1}` }));

test('a chart is read by the arrow keys from end to end, by the nearest place to a finger, and put away with Escape', () => {
  render(
    <ThemeProvider>
      <ChartReader label="A line" reads="Water over time" readings={READINGS}>
        <Text>drawn</Text>
      </ChartReader>
    </ThemeProvider>,
  );
  const slider = () => screen.getByLabelText('Water over time');
  const key = (name: string) =>
    act(() => slider().props.onKeyDown({ key: name, preventDefault: () => undefined }));
  expect(slider().props['aria-valuetext']).toBe('reading 1');
  expect(screen.getByText(/^Touch the chart/)).toBeTruthy();
  for (const [name, says] of [
    ['ArrowRight', 1],
    ['ArrowRight', 2],
    ['End', 3],
    ['ArrowRight', 3],
    ['ArrowLeft', 2],
    ['PageDown', 1],
    ['PageUp', 3],
    ['Home', 1],
  ] as const) {
    key(name);
    expect([name, screen.getByText(/^reading/).props.children]).toEqual([name, `reading ${says}`]);
    expect(slider().props['aria-valuenow']).toBe(says);
  }
  const touch = (x: number) =>
    act(() =>
      slider().props.onPointerMove({
        clientX: 100 + x,
        currentTarget: { getBoundingClientRect: () => ({ left: 100 }) },
      }),
    );
  touch(140);
  expect(screen.getByText('reading 3')).toBeTruthy();
  key('Escape');
  expect(screen.getByText(/^Touch the chart/)).toBeTruthy();
  expect([-50, 34, 36, 129, 131, 900].map((x) => nearest(READINGS, x))).toEqual([0, 0, 1, 1, 2, 2]);
});

test('a table is sorted up, down and back by its heads, what is missing last, and shown a page at a time', async () => {
  const rows = [3, 1, null, 2].map((g, n) => ({ name: `cup ${n + 1}`, g }));
  render(
    <ThemeProvider>
      <Table
        label="Cups"
        pageSize={3}
        rows={rows}
        columns={[
          { name: 'Cup', value: ({ name }) => name },
          {
            name: 'Mass',
            value: ({ g }) => g,
            show: ({ g }) => (g === null ? 'unknown' : `${g} g`),
            numeric: true,
          },
        ]}
      />
    </ThemeProvider>,
  );
  const masses = () => screen.getAllByText(/ g$|unknown/).map(({ props }) => props.children as string);
  // The table comes as a script of its own.
  await act(async () => undefined);
  const sort = () => fireEvent.press(screen.getByLabelText('Sort by Mass'));
  expect(masses()).toEqual(['3 g', '1 g', 'unknown']);
  sort();
  expect(masses()).toEqual(['1 g', '2 g', '3 g']);
  fireEvent.press(screen.getByLabelText('Next page of Cups'));
  expect(masses()).toEqual(['unknown']);
  sort();
  expect(masses()).toEqual(['3 g', '2 g', '1 g']);
  expect(screen.getByLabelText('Mass').props['aria-sort']).toBe('descending');
  sort();
  expect(masses()).toEqual(['3 g', '1 g', 'unknown']);
  expect(screen.getByText(/^1 of 2$/)).toBeTruthy();
});
