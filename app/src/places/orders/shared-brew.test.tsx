/** Offering one brew for cups of two orders: only where it can be, and only where it is sooner. */
import { screen } from '@testing-library/react-native';
import { EMPTY_BAR, reduce, type BarEvent, type CupAsk } from '@even-kettle/core/brew';
import { CARD_VERSION, SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { TEST_BAR, press, showPage } from '../../testing/bar';
import { SharedBrew, neighbourOf } from './shared-brew';

const book = bookOf(SCHOOLS);
const T0 = Date.UTC(2026, 0, 5, 8);
const cup = (cupId: string, change: Partial<CupAsk> = {}): CupAsk => ({
  cupId,
  recipeId: 'cone-thirds',
  recipeVersion: 1,
  coffee: 'Saltmarsh',
  roast: 'light',
  cupMl: 200,
  ...change,
});
const order = (orderId: string, ...cups: CupAsk[]): BarEvent => ({
  id: orderId,
  type: 'order-taken',
  atMs: T0,
  orderId,
  cups,
});
const after = (...events: BarEvent[]) => reduce(events, book, EMPTY_BAR).state;
const seen = (asked: CupAsk, state = after(order('A', cup('a1'))), nowMs = T0 + 60_000) =>
  neighbourOf(asked, state, TEST_BAR, book, nowMs)?.cup.with;

test('a cup that is alike and waits is a neighbour; one that is not alike, long taken, under way or too much for the brewer is none', () => {
  expect(seen(cup('b1'))).toEqual({ orderId: 'A', cupId: 'a1' });
  expect(seen(cup('b1', { cupMl: 210 }))).toBeUndefined();
  expect(seen(cup('b1', { coffee: 'Low Beacon' }))).toBeUndefined();
  expect(seen(cup('b1', { addition: 'ice' }))).toBeUndefined();
  expect(seen(cup('b1'), undefined, T0 + 6 * 60_000)).toBeUndefined();
  const large = after(order('A', cup('a1', { cupMl: 250 })));
  // Two of 250 ml are more coffee than this cone takes.
  expect(seen(cup('b1', { cupMl: 250 }), large)).toBeUndefined();
  const begun: BarEvent = {
    id: 's',
    type: 'brew-started',
    atMs: T0 + 1000,
    brewId: 'a1.1',
    orderId: 'A',
    cupId: 'a1',
    stationId: 'cone-1',
    stationName: 'Cone 1',
    brewerId: 'cone-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 90,
    prepVersion: CARD_VERSION,
  };
  expect(seen(cup('b1'), after(order('A', cup('a1')), begun))).toBeUndefined();
});

test('it is offered with what it gains, not for a few seconds, and can be taken back', () => {
  const state = after(order('A', cup('a1')));
  const neighbour = neighbourOf(cup('b1'), state, TEST_BAR, book, T0)!;
  const chosen: boolean[] = [];
  const show = (soonerS: number, shared = false) =>
    showPage(
      <SharedBrew
        neighbour={neighbour}
        here={{ ok: true, readyS: 500, apartS: 0, outS: [], shifts: [] }}
        other={{ ok: true, readyS: 500 - soonerS, apartS: 0, outS: [], shifts: [] }}
        shared={shared}
        onChange={(next) => chosen.push(next)}
      />,
    );
  show(10);
  expect(screen.queryByTestId('share-brew')).toBeNull();
  show(95);
  expect(screen.getByText('Order A waits for the same: as one brew this is out 1:35 sooner.')).toBeTruthy();
  press('Brew it with A');
  show(0, true);
  expect(screen.getByText('One brew with order A.')).toBeTruthy();
  press('A brew of its own');
  expect(chosen).toEqual([true, false]);
});
