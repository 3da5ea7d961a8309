/**
 * Pulling an order forward and putting it back: the planner finds the least that does it, and says what it costs the rest.
 */
import { useState } from 'react';
import { badgeOf, type OrderState } from '@even-kettle/core/brew';
import type { OrderDelay, Urging } from '@even-kettle/core/plan';
import { useHere } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { WORDS } from './words';

export type Urged = { orderId: string; words: string; shifts: OrderDelay[] };
export type Urge = {
  past: (order: OrderState, other: OrderState, way: 'before' | 'after') => void;
  rush: (order: OrderState) => void;
  calm: (order: OrderState) => void;
  /** What the last one came to. */
  urged: Urged | null;
};

const letter = (order: OrderState): string => badgeOf(order.badge).letter;

export function useUrging(): Urge {
  const { planner, store } = useHere();
  const act = useAct();
  const [urged, setUrged] = useState<Urged | null>(null);

  const post = (order: OrderState, label: string, weight: number, wantedS: number | null) =>
    act(
      [
        {
          type: 'order-urged',
          orderId: order.id,
          weight,
          ...(wantedS === null ? {} : { wantedMs: wantedS * 1000 }),
        },
      ],
      label,
    );
  const take = (order: OrderState, label: string, urging: Urging | null, otherwise: string) => {
    if (!urging?.kept) return setUrged({ orderId: order.id, words: otherwise, shifts: [] });
    post(order, label, urging.weight, urging.wantedS);
    setUrged({ orderId: order.id, words: `${label}.`, shifts: urging.shifts });
  };
  const given = () => store.given();

  return {
    urged,
    past: (order, other, way) => {
      const bar = given();
      if (!bar) return;
      planner.ask(bar, { ask: 'urge', orderId: order.id, otherId: other.id, way }, (answer) => {
        if (answer.ask !== 'urge') return;
        const otherwise = WORDS.cannotPass(letter(order), way, letter(other));
        take(order, `${letter(order)} ${way} ${letter(other)}`, answer.urging, otherwise);
      });
    },
    rush: (order) => {
      const bar = given();
      if (!bar) return;
      planner.ask(bar, { ask: 'rush', orderId: order.id }, (answer) => {
        if (answer.ask !== 'rush') return;
        take(order, WORDS.rushFor(letter(order)), answer.urging, WORDS.isSoonest(letter(order)));
      });
    },
    calm: (order) => {
      post(order, WORDS.noRushFor(letter(order)), 1, null);
      setUrged({ orderId: order.id, words: WORDS.waitsItsTurnAgain(letter(order)), shifts: [] });
    },
  };
}
