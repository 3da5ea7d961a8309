import { lastResort } from './last-resort';

test('what nobody reckoned with is written down once, the database is closed, and the process ends', async () => {
  const [said, codes, closed]: [string[], number[], string[]] = [[], [], []];
  const listeners = process.listeners('unhandledRejection').length;
  const resort = lastResort(
    { fatal: (_detail: unknown, message?: string) => void said.push(String(message)) },
    (code) => codes.push(code),
  );
  expect(process.listeners('unhandledRejection')).toHaveLength(listeners + 1);
  resort.close(async () => void closed.push('database'));
  resort.fatal(new Error('odd'));
  resort.fatal(new Error('and again'));
  await new Promise((resolve) => setImmediate(resolve));
  expect([said, closed, codes]).toEqual([['the server cannot go on and ends'], ['database'], [1]]);
  process.off('unhandledRejection', resort.fatal);
  process.off('uncaughtException', resort.fatal);
});

test('a database that cannot be closed does not keep the process', async () => {
  const codes: number[] = [];
  const resort = lastResort({ fatal: () => undefined }, (code) => codes.push(code));
  resort.close(() => Promise.reject(new Error('locked')));
  resort.fatal(new Error('odd'));
  await new Promise((resolve) => setImmediate(resolve));
  expect(codes).toEqual([1]);
  process.off('unhandledRejection', resort.fatal);
  process.off('uncaughtException', resort.fatal);
});
