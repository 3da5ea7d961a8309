/** More brews under way than there are kettles, after some were taken off the bench: what is held is no reason to hurry. */
import { apply, EMPTY_BAR, type BarEvent } from '../../brew';
import { BENCH, T0, book, cup, order } from '../../testing/bench';
import { CARD_VERSION } from '../../recipe';
import { buildProblem, checkPlan, solve, type Bench } from '../index';

const BREWS = 12;
const bench: Bench = {
  ...BENCH,
  stations: Array.from({ length: BREWS }, (_, n) => ({
    id: `cone-${n}`,
    name: `Cone ${n}`,
    brewerId: 'cone-m',
  })),
};

test('with twelve cones blooming on three kettles and one pair of hands, no plan pours two at once', () => {
  let count = 0;
  let state = EMPTY_BAR;
  const happen = (event: Record<string, unknown> & { atS: number }) => {
    const { atS, ...rest } = event;
    const applied = apply(
      state,
      { id: `e${(count += 1)}`, atMs: T0 + atS * 1000, ...rest } as unknown as BarEvent,
      book,
    );
    if (!applied.ok) throw new Error(applied.refusal.reason);
    state = applied.state;
  };
  for (let n = 0; n < BREWS; n += 1) {
    const at = n * 4;
    const brewId = `c${n}.1`;
    happen({ ...order(`o${n}`, at, cup(`c${n}`)), atS: at });
    happen({
      atS: at,
      type: 'brew-started',
      brewId,
      orderId: `o${n}`,
      cupId: `c${n}`,
      stationId: `cone-${n}`,
      stationName: `Cone ${n}`,
      brewerId: 'cone-m',
      altitudeM: 0,
      kettlePowerW: 1200,
      kettleFilledAtC: 90,
      prepVersion: CARD_VERSION,
    });
    for (const [stepId, doneS] of [
      ['fill', 12],
      ['set-filter', 24],
      ['weigh', 64],
      ['load', 94],
    ] as const)
      happen({ atS: at + doneS, type: 'step-done', brewId, stepId });
    happen({ atS: at + 100, type: 'step-begun', brewId, stepId: 'bloom' });
    happen({ atS: at + 107, type: 'step-done', brewId, stepId: 'bloom' });
  }
  // From when all bloom to when each is long past its pour.
  for (let nowS = 156; nowS <= 420; nowS += 12) {
    const { problem } = buildProblem(state, bench, book, T0 / 1000 + nowS);
    for (const moves of [1, 60]) expect(checkPlan(problem, solve(problem, { moves }))).toEqual([]);
  }
});
