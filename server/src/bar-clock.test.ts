import { barTimeMs } from './bar-clock';
import { readSettings } from './settings';

test('bar time runs at its rate from where it was set, and never behind the log', () => {
  const base = { realMs: 1000, barMs: 50_000, rate: 60 };
  expect([barTimeMs(base, 1000), barTimeMs(base, 2000), barTimeMs(base, 0, 49_000)]).toEqual([
    50_000, 110_000, 49_000,
  ]);
});

test('settings that make no sense are refused by name', () => {
  expect(() => readSettings({ PORT: 'eighty' })).toThrow(
    'PORT must be a whole number from 0 to 65535, not “eighty”.',
  );
  expect(() => readSettings({ BAR_CLOCK_RATE: '0' })).toThrow(
    'BAR_CLOCK_RATE must be a number from 0.1 to 1000',
  );
  expect(readSettings({})).toMatchObject({ port: 4173, host: '127.0.0.1', clockRate: 1 });
});
