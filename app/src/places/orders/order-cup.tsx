/**
 * A cup of an order: what it waits for, and what can be done with it.
 */
import { useState } from 'react';
import { View } from 'react-native';
import {
  badgeOf,
  brewAt,
  hostOf,
  nextBrewId,
  latestBrew,
  type CupState,
  type OrderState,
} from '@even-kettle/core/brew';
import { cardFor, freeKettleFor, startEvent } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { newId, useBar, useHere, useUnits } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { cupInWords } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { OtherCup } from '../bar/other-cup';
import { Text } from '../../ui/text';
import { WORDS } from './words';

export function Cup({ order, cup, compact }: { order: OrderState; cup: CupState; compact: boolean }) {
  const units = useUnits();
  const { state, book } = useBar();
  const recipe = book(cup);
  const brew = latestBrew(state, cup);
  const host = hostOf(state, cup) && state.orders[cup.with!.orderId];
  const place =
    cup.status === 'brewing' && brew ? WORDS.at(brew.stationName.replaceAll(' ', '\u00a0')) : cup.status;
  const where = host ? WORDS.oneBrewWith(place, badgeOf(host.badge).letter) : place;
  return (
    <View
      style={{
        minHeight: 44,
        flexDirection: 'row',
        alignItems: 'center',
        columnGap: 10,
      }}
    >
      <View style={{ flex: 1, minWidth: 0, paddingVertical: 6 }}>
        <Text numberOfLines={1}>{cupInWords(cup, units)}</Text>
        <Text size="small" quiet numberOfLines={2}>
          {where} · {recipe ? `${METHODS[recipe.method].name}, ${lowerFirst(recipe.name)}` : cup.recipeId}
        </Text>
      </View>
      {compact ? null : <CupActions order={order} cup={cup} />}
    </View>
  );
}

/** Start, cancel, give up, remake: whichever makes sense for the cup as it stands. What loses something is asked twice. */
function CupActions({ order, cup }: { order: OrderState; cup: CupState }) {
  const { clock } = useHere();
  const tell = useAct();
  const { state, bar, book } = useBar();
  const [sure, setSure] = useState(false);
  if (!bar) return null;
  const act = (label: string, ...events: NewEvent[]) => {
    setSure(false);
    tell(events, label);
  };
  const brew = latestBrew(state, cup);
  // An order may have the same coffee twice, and so may two orders.
  const which = WORDS.cupOfOrder(cup.coffee, order.cups.indexOf(cup) + 1, badgeOf(order.badge).letter);

  if (cup.status === 'waiting') {
    const found = cardFor(bar, cup, book);
    // What shares a brew is started with it.
    const station = found.ok && !cup.with ? found.stations.find(({ id }) => !brewAt(state, id)) : undefined;
    const start = () => {
      if (!found.ok || !station) return;
      const item = {
        brewId: nextBrewId(cup),
        order,
        cup,
        card: found.card,
        station: { ...station, free: true },
        kettle: freeKettleFor(state, bar, found.card),
      };
      act(WORDS.start(station.name), startEvent(item, bar, clock.nowMs(), newId));
    };
    return (
      <Row style={{ gap: 6 }}>
        {sure ? (
          <Button
            kind="ruled"
            label={WORDS.cancelThisCup}
            onPress={() =>
              act(WORDS.cancelCup, { type: 'cup-cancelled', orderId: order.id, cupId: cup.cupId })
            }
          />
        ) : (
          <>
            <Button
              label={WORDS.cancel}
              kind="bare"
              says={WORDS.cancelForWhich(which)}
              onPress={() => setSure(true)}
            />
            <Button
              label={WORDS.startLabel}
              says={WORDS.startForWhich(which)}
              disabled={!station}
              onPress={start}
            />
          </>
        )}
      </Row>
    );
  }
  if (cup.status === 'brewing' && brew) {
    return sure ? (
      <Row style={{ gap: 6 }}>
        <Button kind="bare" label={WORDS.cancel} onPress={() => setSure(false)} />
        <Button
          kind="ruled"
          label={WORDS.stopAndBrewAgain}
          onPress={() =>
            act(WORDS.stopped, {
              type: 'brew-abandoned',
              brewId: brew.id,
              reason: WORDS.stoppedOnOrders,
            })
          }
        />
      </Row>
    ) : (
      <Button
        kind="bare"
        label={WORDS.stop}
        says={WORDS.stopTheBrewOf(which)}
        onPress={() => setSure(true)}
      />
    );
  }
  if (cup.status === 'served' && brew) {
    return (
      <View style={{ alignItems: 'flex-end', gap: 4 }}>
        <Row style={{ gap: 6 }}>
          <Button
            kind="bare"
            label={sure ? WORDS.close : WORDS.wentElsewhere}
            says={sure ? WORDS.close : WORDS.wentElsewhereForWhich(which)}
            onPress={() => setSure(!sure)}
          />
          <Button
            label={WORDS.remake}
            says={WORDS.remakeForWhich(which)}
            onPress={() =>
              act(WORDS.remake, {
                type: 'cup-remade',
                orderId: order.id,
                cupId: cup.cupId,
                brewId: brew.id,
                reason: WORDS.sentBack,
              })
            }
          />
        </Row>
        {sure ? <OtherCup brew={brew} /> : null}
      </View>
    );
  }
  return null;
}
const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
