/**
 * What becomes of a brew whose cup is wanted no more: it is stopped, or another guest gets it.
 */
import { areAlike, badgeOf, type BarState, type BrewState, type CupState } from '@even-kettle/core/brew';
import { useBar } from '../../client/bar-context';
import type { NewEvent } from '../../device/use-act';
import { Select } from '../../ui/select';
import { WORDS } from '../../parts/orders/words';

type Taker = { orderId: string; cup: CupState; label: string };

/** Waiting cups of any order that ask for the very same as a brew. */
export function takersOf(state: BarState, brew: BrewState): Taker[] {
  return Object.values(state.orders).flatMap((order) =>
    order.cups
      .filter(
        (cup) => cup.cupId !== brew.cupId && cup.status === 'waiting' && !cup.with && areAlike(brew.ask, cup),
      )
      .map((cup) => ({
        orderId: order.id,
        cup,
        label: WORDS.goesTo(badgeOf(order.badge).letter, order.name ?? ''),
      })),
  );
}

export function BrewGoes({
  brew,
  to,
  onChange,
}: {
  brew: BrewState;
  /** The cup that gets it, or nothing: it is stopped. */
  to: string;
  onChange: (to: string) => void;
}) {
  const { state } = useBar();
  const takers = takersOf(state, brew);
  return (
    <Select
      label={WORDS.itsBrewAt(brew.stationName)}
      value={to}
      onChange={onChange}
      options={[
        { value: '', label: WORDS.isStopped },
        ...takers.map(({ cup, label }) => ({ value: cup.cupId, label })),
      ]}
    />
  );
}

/** What is said of a brew that is stopped, or given to another cup. */
export function brewGoesEvents(brew: BrewState, to: string, state: BarState): NewEvent[] {
  const taker = takersOf(state, brew).find(({ cup }) => cup.cupId === to);
  if (!taker) return [{ type: 'brew-abandoned', brewId: brew.id, reason: WORDS.guestWantedSomethingElse }];
  return [
    {
      type: 'brew-given',
      brewId: brew.id,
      fromOrderId: brew.orderId,
      fromCupId: brew.cupId,
      orderId: taker.orderId,
      cupId: taker.cup.cupId,
    },
  ];
}
