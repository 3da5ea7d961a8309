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

export function Cup({ order, cup, compact }: { order: OrderState; cup: CupState; compact: boolean }) {
  const units = useUnits();
  const { state, book } = useBar();
  const recipe = book(cup);
  const brew = latestBrew(state, cup);
  const host = hostOf(state, cup) && state.orders[cup.with!.orderId];
  const place =
    cup.status === 'brewing' && brew ? `at ${brew.stationName.replaceAll(' ', '\u00a0')}` : cup.status;
  const where = host ? `${place}, one brew with ${badgeOf(host.badge).letter}` : place;
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
  const which = `${cup.coffee}, cup ${order.cups.indexOf(cup) + 1} of order ${badgeOf(order.badge).letter}`;

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
      act(`Start ${station.name}`, startEvent(item, bar, clock.nowMs(), newId));
    };
    return (
      <Row style={{ gap: 6 }}>
        {sure ? (
          <Button
            kind="ruled"
            label="Cancel this cup"
            onPress={() => act('Cancel cup', { type: 'cup-cancelled', orderId: order.id, cupId: cup.cupId })}
          />
        ) : (
          <>
            <Button label="Cancel" kind="bare" says={`Cancel ${which}`} onPress={() => setSure(true)} />
            <Button label="Start" says={`Start ${which}`} disabled={!station} onPress={start} />
          </>
        )}
      </Row>
    );
  }
  if (cup.status === 'brewing' && brew) {
    return sure ? (
      <Row style={{ gap: 6 }}>
        <Button kind="bare" label="Cancel" onPress={() => setSure(false)} />
        <Button
          kind="ruled"
          label="Stop and brew again"
          onPress={() =>
            act('Stopped', {
              type: 'brew-abandoned',
              brewId: brew.id,
              reason: 'stopped on Orders',
            })
          }
        />
      </Row>
    ) : (
      <Button kind="bare" label="Stop" says={`Stop the brew of ${which}`} onPress={() => setSure(true)} />
    );
  }
  if (cup.status === 'served' && brew) {
    return (
      <View style={{ alignItems: 'flex-end', gap: 4 }}>
        <Row style={{ gap: 6 }}>
          <Button
            kind="bare"
            label={sure ? 'Close' : 'Went elsewhere'}
            says={sure ? 'Close' : `Went elsewhere: ${which}`}
            onPress={() => setSure(!sure)}
          />
          <Button
            label="Remake"
            says={`Remake ${which}`}
            onPress={() =>
              act('Remake', {
                type: 'cup-remade',
                orderId: order.id,
                cupId: cup.cupId,
                brewId: brew.id,
                reason: 'sent back',
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
