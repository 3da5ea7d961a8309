/** A drill's shift, lived second by second on a real private bar: guests come, the colleague works, and taps are judged. */
import { BY_THE_CARD, lived } from '../../testing/rush';

const served = ({ state }: ReturnType<typeof lived>) =>
  Object.values(state.orders)
    .flatMap(({ cups }) => cups)
    .filter(({ status }) => status === 'served').length;

test('who does what the card says when it says it gets every cup out, and is told of no fault', () => {
  const two = lived('two');
  expect([two.isOver, served(two)]).toEqual([true, 2]);
  expect(two.shift.counts()).toMatchObject({ wrongOrder: 0, tooEarly: 0 });
  expect(two.shift.counts().idleMs).toBeLessThan(20_000);
  // Every change of the bar can be looked at again, in order.
  const times = two.shift.moments().map(({ atMs }) => atMs);
  expect(times.length).toBeGreaterThan(20);
  expect(times).toEqual(times.toSorted((a, b) => a - b));
});

test('a colleague does the other pair’s steps by itself, and two pairs are sooner done than one', () => {
  const [alone, both] = [lived('three'), lived('three', { hands: 2 })];
  expect([served(alone), served(both)]).toEqual([3, 3]);
  const lastMs = ({ state }: ReturnType<typeof lived>) =>
    Math.max(...Object.values(state.brews).map(({ servedMs = 0 }) => servedMs));
  expect(lastMs(both)).toBeLessThan(lastMs(alone));
});

test('what is said before it can be seen, or done in no time, is counted as too early', () => {
  const hasty = lived('one', { doing: (item, _sees, nowMs) => item.asks !== 'runs' && item.dueMs <= nowMs });
  expect(hasty.shift.counts().tooEarly).toBeGreaterThan(3);
});

test('hands that do nothing while something is due are idle, and the drill waits for them', () => {
  let nothing = 0;
  const slow = lived('one', {
    doing: (item, sees, nowMs) => BY_THE_CARD(item, sees, nowMs) && (nothing += 1) % 20 === 0,
  });
  expect(slow.shift.counts().idleMs).toBeGreaterThan(60_000);
  expect(served(slow)).toBe(1);
});

test('a cup that is spilt is brewed again, and a kettle that runs dry takes the hands away', () => {
  const spilt = lived('two', { surprises: ['spilt', 'kettle'] });
  expect(spilt.isOver).toBe(true);
  expect(Object.values(spilt.state.brews)).toHaveLength(3);
  expect(spilt.shift.surprised()?.surprise).toBe('spilt');
  expect(spilt.state.away).toHaveLength(1);
});

test('a bed that stalls drains much longer than the same one that does not', () => {
  const lengthMs = (at: ReturnType<typeof lived>) => {
    const [brew] = Object.values(at.state.brews);
    return brew!.servedMs! - brew!.startedMs;
  };
  expect(lengthMs(lived('one', { surprises: ['stalled'] }))).toBeGreaterThan(lengthMs(lived('one')) + 25_000);
});
