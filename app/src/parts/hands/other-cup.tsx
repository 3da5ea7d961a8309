/**
 * A brew goes to another cup than the one that it was started for.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { badgeOf, type BrewState } from '@even-kettle/core/brew';
import { METHODS } from '@even-kettle/core/recipe';
import { useBar, useUnits } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { cupInWords } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { EffectOf } from '../orders/proposal';
import { WORDS } from './words';

/** Cups that could have this brew: those that wait, and those whose brew could go the other way. */
export function OtherCup({ brew }: { brew: BrewState }) {
  const act = useAct();
  const { state, book } = useBar();
  const units = useUnits();
  const [to, setTo] = useState('');
  const [sure, setSure] = useState('');
  const others = Object.values(state.orders).flatMap((order) =>
    order.cups
      .filter(({ cupId, status }) => cupId !== brew.cupId && (status === 'waiting' || status === 'brewing'))
      .map((cup) => ({ order, cup })),
  );
  if (others.length === 0) return null;
  const same = (cup: (typeof others)[number]['cup']) =>
    cup.coffee === brew.ask.coffee && cup.recipeId === brew.ask.recipeId;
  others.sort((a, b) => Number(same(b.cup)) - Number(same(a.cup)) || a.order.takenMs - b.order.takenMs);
  const chosen = others.find(({ cup }) => cup.cupId === to);
  const swaps = chosen?.cup.status === 'brewing';
  const recipe = chosen && book(chosen.cup);
  const differs = chosen && !same(chosen.cup);
  const given: NewEvent | null = chosen
    ? {
        type: 'brew-given',
        brewId: brew.id,
        fromOrderId: brew.orderId,
        fromCupId: brew.cupId,
        orderId: chosen.order.id,
        cupId: chosen.cup.cupId,
        ...(swaps ? { otherBrewId: chosen.cup.brewIds.at(-1)! } : {}),
      }
    : null;
  return (
    <View style={{ gap: 4 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label={WORDS.itGoesTo}
          value={to}
          options={[
            { value: '', label: WORDS.cupStartedFor },
            ...others.map(({ order, cup }) => ({
              value: cup.cupId,
              label: `${badgeOf(order.badge).letter} · ${order.name ?? 'order'} · ${cupInWords(cup, units)}${cup.status === 'brewing' ? ' (swap)' : ''}`,
            })),
          ]}
          onChange={setTo}
          style={{ flex: 1 }}
          testID="given-to"
        />
        <Button
          label={differs && sure === to ? WORDS.giveItAnyway : swaps ? WORDS.swap : WORDS.give}
          says={swaps ? WORDS.swapTheTwoBrews : WORDS.giveToThatCup}
          disabled={!chosen}
          onPress={() => {
            if (!given) return;
            // Another coffee than was asked for has to be meant.
            if (differs && sure !== to) return setSure(to);
            act([given], WORDS.cup);
          }}
        />
      </Row>
      {given ? <EffectOf events={[given]} /> : null}
      {differs ? (
        <Text size="small" bold>
          {WORDS.otherGuestAsked(
            chosen.cup.coffee,
            recipe ? `, ${METHODS[recipe.method].name.toLowerCase()}` : '',
            brew.ask.coffee,
          )}
        </Text>
      ) : null}
    </View>
  );
}
