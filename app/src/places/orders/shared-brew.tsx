/**
 * A cup that is alike with one of another order, which waits: both can be poured out of one brew, where that is sooner.
 */
import {
  MOST_CUPS_OF_A_BREW,
  areAlike,
  badgeOf,
  type BarState,
  type CupAsk,
  type OrderState,
} from '@even-kettle/core/brew';
import { cardFor, type Bench, type Quote } from '@even-kettle/core/plan';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORTH_SHARING_S } from './as-one';
import { WORDS } from '../../parts/orders/words';

export type Neighbour = { order: OrderState; cup: CupAsk };

/** Who ordered so long before has waited long enough, and is not made to wait for a larger brew, milliseconds. */
const NEAR_MS = 5 * 60_000;

/** The oldest order near enough with a cup that this one could share; null where there is none. */
export function neighbourOf(
  cup: CupAsk | undefined,
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  nowMs: number,
): Neighbour | null {
  if (!cup) return null;
  for (const order of Object.values(state.orders)) {
    if (nowMs - order.takenMs > NEAR_MS) continue;
    const host = order.cups.find(
      (each) => each.status === 'waiting' && each.attempts.length === 0 && !each.with && areAlike(each, cup),
    );
    const cups = (host?.cups ?? 1) + (cup.cups ?? 1);
    if (!host || cups > MOST_CUPS_OF_A_BREW || !cardFor(bench, { ...cup, cups }, book).ok) continue;
    return { order, cup: { ...cup, with: { orderId: order.id, cupId: host.cupId } } };
  }
  return null;
}

type Props = {
  neighbour: Neighbour;
  /** How it would be as it is chosen now, and the other way. */
  here: Quote | undefined;
  other: Quote | undefined;
  shared: boolean;
  onChange: (shared: boolean) => void;
};

export function SharedBrew({ neighbour, here, other, shared, onChange }: Props) {
  const { letter } = badgeOf(neighbour.order.badge);
  if (shared)
    return (
      <Row style={{ flexWrap: 'wrap' }}>
        <Text style={{ flex: 1, minWidth: 180 }}>{WORDS.oneBrewWithOrder(letter)}</Text>
        <Button kind="bare" label={WORDS.ownBrew} onPress={() => onChange(false)} />
      </Row>
    );
  const soonerS = here?.ok && other?.ok ? here.readyS - other.readyS : 0;
  if (soonerS < WORTH_SHARING_S) return null;
  return (
    <Row style={{ flexWrap: 'wrap' }}>
      <Text style={{ flex: 1, minWidth: 180 }}>{WORDS.orderWaitsForSame(letter, showClock(soonerS))}</Text>
      <Button label={WORDS.brewItWith(letter)} onPress={() => onChange(true)} testID="share-brew" />
    </Row>
  );
}
