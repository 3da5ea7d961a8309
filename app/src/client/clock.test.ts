import { deviceClock } from './clock';

/** A server whose clock runs at a rate, behind a network whose trips take the given times there and back. */
function network(trips: [thereMs: number, backMs: number][], rate = 1) {
  let realMs = 0;
  let trip = 0;
  const serverMs = () => 1_000_000 + realMs * rate;
  const read = () => {
    const [there, back] = trips[trip++ % trips.length]!;
    realMs += there;
    const reading = { barMs: serverMs(), rate };
    realMs += back;
    return Promise.resolve(reading);
  };
  return { read, monotonicMs: () => realMs, serverMs, pass: (ms: number) => (realMs += ms) };
}

test.each([1, 60])(
  'at rate %d the offset comes from the quickest round trip and is off by half of it at most',
  async (rate) => {
    const net = network(
      [
        [400, 20],
        [4, 2],
        [150, 700],
      ],
      rate,
    );
    const clock = deviceClock(net.read, net.monotonicMs);
    await clock.measure();
    net.pass(5000);
    expect(clock.uncertaintyMs()).toBe(3);
    expect(Math.abs(clock.nowMs() - net.serverMs())).toBeLessThanOrEqual(3 * rate);
  },
);

test('bar time never runs backwards when a better measure says it is earlier', async () => {
  const trips: [number, number][] = [[0, 800]];
  const net = network(trips);
  const clock = deviceClock(net.read, net.monotonicMs);
  await clock.measure();
  const before = clock.nowMs();
  trips[0] = [1, 1];
  await clock.measure();
  expect(clock.nowMs()).toBeGreaterThanOrEqual(before);
});

test('whoever shows the time is told when it was set by more than a second, by the first answer of five', async () => {
  let setByMs = 0;
  const net = network([[10, 10]]);
  let asked = 0;
  const clock = deviceClock(async () => {
    asked += 1;
    const { barMs, rate } = await net.read();
    return { barMs: barMs + setByMs, rate };
  }, net.monotonicMs);
  const told: { byMs: number; asked: number }[] = [];
  const setBy = async (ms: number) => {
    setByMs = ms;
    asked = 0;
    await clock.measure();
  };
  await setBy(0);
  const unheard = clock.onSet(() => told.push({ byMs: clock.nowMs() - net.serverMs(), asked }));
  await setBy(500);
  expect(told).toEqual([]);
  await setBy(60_500);
  expect(told).toEqual([{ byMs: 60_500, asked: 1 }]);
  unheard();
  await setBy(90_000);
  expect(told).toHaveLength(1);
});

test('where the server’s clock is set while it is measured, the quickest answer of before does not count', async () => {
  const net = network([
    [10, 10],
    [1, 1],
    [10, 10],
  ]);
  let asked = 0;
  const setByMs = () => ((asked += 1) > 7 ? 60_000 : 0);
  const clock = deviceClock(async () => {
    const { barMs, rate } = await net.read();
    return { barMs: barMs + setByMs(), rate };
  }, net.monotonicMs);
  await clock.measure();
  await clock.measure();
  expect(clock.nowMs() - net.serverMs()).toBe(60_000);
});
