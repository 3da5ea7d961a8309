/** The review of a rush that was really lived: what the barista reads of it, and the rail as it stood. */
import { act, fireEvent, screen } from '@testing-library/react-native';
import { exactWaits, reviewRush } from '@even-kettle/core/practice';
import { showClock } from '@even-kettle/core/units';
import { BY_THE_CARD, lived } from '../../testing/rush';
import { press, showPage } from '../../testing/bar';
import { lanesOf } from '../../parts/hands/lanes';
import { RushReviewPage } from './rush-review';
import { WORDS } from './words';

jest.mock('expo-router', () => ({ router: { navigate: () => undefined, push: () => undefined } }));

// The rail listens for keys; here is no window.
Object.assign(window, { addEventListener: () => undefined, removeEventListener: () => undefined });

async function reviewed(rush: ReturnType<typeof lived>) {
  const exactS = await exactWaits(rush.bar, rush.orders, rush.book);
  return reviewRush(rush.asked, rush.state, exactS, rush.shift.counts(), rush.nowMs);
}

async function show(rush: ReturnType<typeof lived>) {
  const review = await reviewed(rush);
  const done: string[] = [];
  showPage(
    <RushReviewPage
      review={review}
      moments={rush.shift.moments()}
      bar={rush.bar}
      startMs={rush.shift.startMs}
      onAgain={() => done.push('again')}
      onNext={() => done.push('next')}
      onRecord={null}
    />,
  );
  return { review, done };
}

test('by the card: no pour was late, each order has its wait beside what it could have been, and the next drill is harder', async () => {
  const { review, done } = await show(lived('two'));
  expect(review.isMastered).toBe(true);
  expect(review.next.level).not.toBe('two');
  expect(screen.getByText(WORDS.noLatePour)).toBeTruthy();
  await screen.findAllByText(WORDS.waited);
  for (const { waitS, exactS } of review.orders) {
    expect(waitS).toBeGreaterThan(100);
    // Nobody is quicker than exact hands by more than chance.
    expect(waitS! - exactS!).toBeGreaterThan(-15);
    expect(screen.getAllByText(showClock(waitS!)).length).toBeGreaterThan(0);
  }
  press(WORDS.nextDrill);
  press(WORDS.sameAgain);
  expect(done).toEqual(['next', 'again']);
});

test('who comes late to the pours reads which, for how long the bed stood bare, and how long hands did nothing', async () => {
  let waited = 0;
  const { review } = await show(
    lived('two', {
      // Every tap comes fifteen seconds late.
      doing: (item, sees, nowMs) => {
        if (!BY_THE_CARD(item, sees, nowMs)) waited = nowMs;
        return BY_THE_CARD(item, sees, nowMs) && nowMs - waited > 15_000;
      },
    }),
  );
  expect(review.isMastered).toBe(false);
  expect(review.latePours.length).toBeGreaterThan(2);
  const [worst] = review.latePours.toSorted((a, b) => b.lateS - a.lateS);
  expect(worst!.lateS).toBeGreaterThan(8);
  for (const { station } of review.latePours)
    expect(screen.getAllByText(new RegExp(`^${station}.*late`)).length).toBeGreaterThan(0);
  expect(screen.getByTestId('idle')).toBeTruthy();
  expect(review.idleS).toBeGreaterThan(30);
});

test('the rail is looked at again at any moment of the drill, by the arrow keys too', async () => {
  const rush = lived('one');
  await show(rush);
  const slider = () => screen.UNSAFE_getByProps({ role: 'slider' });
  const by = (key: string) =>
    act(() => fireEvent(slider(), 'keyDown', { key, preventDefault: () => undefined }));
  expect(slider().props['aria-valuenow']).toBe(0);
  by('PageUp');
  by('PageUp');
  by('ArrowLeft');
  expect(slider().props['aria-valuetext']).toBe('1:55');
  // At that moment the brew is under way: its badge stands on the lane of its station.
  const lanes = lanesOf(
    rush.shift.moments().findLast(({ atMs }) => atMs <= rush.shift.startMs + 115_000)!.state,
    rush.bar,
    rush.book,
    null,
    rush.shift.startMs + 115_000,
  );
  expect(lanes.flatMap(({ stretches }) => stretches)).toHaveLength(1);
  for (let n = 0; n < 60; n += 1) by('PageUp');
  expect(slider().props['aria-valuenow']).toBe(slider().props['aria-valuemax']);
});
