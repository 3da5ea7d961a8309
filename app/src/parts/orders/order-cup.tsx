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
  type BrewState,
  type CupState,
  type OrderState,
  hasTin,
} from '@even-kettle/core/brew';
import { cardFor, freeKettleFor, startEvent } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { newId, useBar, useHere, useUnits } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { cupInWords } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { OtherCup } from '../hands/other-cup';
import { Text } from '../../ui/text';
import { Wishes } from '../wishes';
import { Proposal } from './proposal';
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
        // Where there is no room beside, what can be done stands below.
        flexWrap: compact ? 'nowrap' : 'wrap',
        justifyContent: 'flex-end',
        alignItems: 'center',
        columnGap: 10,
      }}
    >
      <View
        style={{ flexGrow: 1, flexShrink: 1, flexBasis: compact ? 0 : 190, minWidth: 0, paddingVertical: 6 }}
      >
        <Text numberOfLines={1}>{cupInWords(cup, units)}</Text>
        <Text size="small" quiet numberOfLines={2}>
          {where} · {recipe ? `${METHODS[recipe.method].name}, ${lowerFirst(recipe.name)}` : cup.recipeId}
        </Text>
        <Wishes cup={cup} />
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

  if (cup.status === 'waiting' && sure)
    return (
      <Sure
        event={{ type: 'cup-cancelled', orderId: order.id, cupId: cup.cupId }}
        label={WORDS.cancelCup}
        save={WORDS.cancelThisCup}
        onClose={() => setSure(false)}
      />
    );
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
        ...(hasTin(state, cup.coffee, found.card.doseG, clock.nowMs()) ? { fromTin: true as const } : {}),
      };
      act(WORDS.start(station.name), startEvent(item, bar, clock.nowMs(), newId));
    };
    return (
      <Row style={{ gap: 6 }}>
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
      </Row>
    );
  }
  if (cup.status === 'brewing' && brew)
    return sure ? (
      <Sure
        event={{ type: 'brew-abandoned', brewId: brew.id, reason: WORDS.stoppedOnOrders }}
        label={WORDS.stopped}
        save={WORDS.stopAndBrewAgain}
        onClose={() => setSure(false)}
      />
    ) : (
      <Button
        kind="bare"
        label={WORDS.stop}
        says={WORDS.stopTheBrewOf(which)}
        onPress={() => setSure(true)}
      />
    );
  if (cup.status === 'served' && brew)
    return <ServedActions order={order} cup={cup} brew={brew} which={which} />;
  return null;
}

/** What loses something says first what it does to the times, and is asked once more. */
function Sure({
  event,
  label,
  save,
  onClose,
}: {
  event: NewEvent;
  label: string;
  save: string;
  onClose: () => void;
}) {
  return (
    <View style={{ flexBasis: '100%' }}>
      <Proposal events={[event]} label={label} save={save} onDone={onClose} onCancel={onClose} />
    </View>
  );
}

/** It went to another guest, or it came back: why is kept. */
function ServedActions({
  order,
  cup,
  brew,
  which,
}: {
  order: OrderState;
  cup: CupState;
  brew: BrewState;
  which: string;
}) {
  const [asked, setAsked] = useState<'elsewhere' | 'remake' | null>(null);
  const [reason, setReason] = useState<string | null>(null);
  if (reason !== null)
    return (
      <Sure
        event={{ type: 'cup-remade', orderId: order.id, cupId: cup.cupId, brewId: brew.id, reason }}
        label={WORDS.remake}
        save={WORDS.remake}
        onClose={() => (setReason(null), setAsked(null))}
      />
    );
  return (
    <View style={{ alignItems: 'flex-end', gap: 4, flexShrink: 1 }}>
      {asked ? (
        <Button kind="bare" label={WORDS.close} onPress={() => setAsked(null)} />
      ) : (
        <Row style={{ gap: 6 }}>
          <Button
            kind="bare"
            label={WORDS.wentElsewhere}
            says={WORDS.wentElsewhereForWhich(which)}
            onPress={() => setAsked('elsewhere')}
          />
          <Button
            label={WORDS.remake}
            says={WORDS.remakeForWhich(which)}
            onPress={() => setAsked('remake')}
          />
        </Row>
      )}
      {asked === 'elsewhere' ? <OtherCup brew={brew} /> : null}
      {asked === 'remake' ? (
        <Row style={{ gap: 6, flexWrap: 'wrap', justifyContent: 'flex-end' }}>
          {WORDS.remakeReasons.map((each) => (
            <Button
              key={each}
              label={each}
              says={WORDS.remakeBecause(which, each)}
              onPress={() => setReason(each)}
            />
          ))}
        </Row>
      ) : null}
    </View>
  );
}

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
