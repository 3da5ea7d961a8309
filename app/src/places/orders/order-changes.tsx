/**
 * What can be changed of an order, each with what it does to the times before it is saved.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import {
  asksOf,
  badgeOf,
  brewAlike,
  latestBrew,
  openOrders,
  queueOf,
  type CupState,
  type OrderState,
} from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { asInQueue } from '@even-kettle/core/plan';
import { newId, useBar, useHere, useUnits } from '../../client/bar-context';
import type { NewEvent } from '../../device/use-act';
import { cupInWords } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { BrewGoes, brewGoesEvents } from './brew-goes';
import {
  asChanged,
  draftOf,
  firstDraft,
  readDraft,
  sizesFor,
  withRecipe,
  type Counter,
  type Draft,
} from '../../parts/orders/cup-draft';
import { CupForm } from './cup-form';
import { Proposal } from '../../parts/orders/proposal';
import { QueueChoice, readPickUp } from '../../parts/orders/queue-choice';
import { WORDS } from '../../parts/orders/words';

type EditorProps = { order: OrderState; counter: Counter; onClose: () => void };

/** A cup as it is typed, with what it makes. */
function useCupDraft(first: Draft, counter: Counter) {
  const [draft, setDraft] = useState(first);
  const read = readDraft(draft, counter);
  const change = (_key: string, part: Partial<Draft>) => {
    const changed = { ...draft, ...part };
    setDraft(part.recipeId ? withRecipe(changed, part.recipeId, counter) : changed);
  };
  return { draft, read, change };
}

export function ChangeCup({
  order,
  cup,
  number,
  counter,
  onClose,
}: EditorProps & { cup: CupState; number: number }) {
  const { state } = useBar();
  const ask = asksOf(order).find(({ cupId }) => cupId === cup.cupId)!;
  const { draft, read, change } = useCupDraft(draftOf(ask, counter) ?? firstDraft(counter), counter);
  const brew = cup.status === 'brewing' ? latestBrew(state, cup) : undefined;
  const [to, setTo] = useState('');
  const wanted = read.ok ? asChanged(ask, read.cup) : null;
  const isOther = wanted !== null && !brewAlike(ask, wanted);
  const events: NewEvent[] = wanted
    ? [
        ...(brew && isOther ? brewGoesEvents(brew, to, state) : []),
        { type: 'cup-changed', orderId: order.id, cup: wanted },
      ]
    : [];
  return (
    <>
      <CupForm
        number={number}
        bar={counter.bar}
        menu={counter.menu}
        sizesMl={sizesFor(draft, counter)}
        units={counter.units}
        draft={draft}
        read={read}
        quotes={NO_QUOTES}
        showFault
        onChange={change}
        onRemove={null}
      />
      {brew && isOther ? <BrewGoes brew={brew} to={to} onChange={setTo} /> : null}
      <Proposal events={events} label={WORDS.cupChanged} onDone={onClose} onCancel={onClose} />
    </>
  );
}

const NO_QUOTES = {};

export function AddCup({ order, counter, onClose }: EditorProps) {
  const last = asksOf(order).at(-1);
  const [first] = useState(() => {
    const like = last && draftOf(last, counter);
    return like ? { ...like, key: newId(), allergy: '', note: '' } : firstDraft(counter);
  });
  const { draft, read, change } = useCupDraft(first, counter);
  return (
    <>
      <CupForm
        number={order.cups.length + 1}
        bar={counter.bar}
        menu={counter.menu}
        sizesMl={sizesFor(draft, counter)}
        units={counter.units}
        draft={draft}
        read={read}
        quotes={NO_QUOTES}
        showFault
        onChange={change}
        onRemove={null}
      />
      <Proposal
        events={read.ok ? [{ type: 'cup-added', orderId: order.id, cup: read.cup }] : []}
        label={WORDS.cupAdded}
        save={WORDS.addTheCup}
        onDone={onClose}
        onCancel={onClose}
      />
    </>
  );
}

/** The cups that an order still has; why one of them cannot go is said with its effect. */
const notCancelled = (order: OrderState): CupState[] =>
  order.cups.filter(({ status }) => status !== 'cancelled');

export function Split({ order, onClose }: { order: OrderState; onClose: () => void }) {
  const units = useUnits();
  const [toOrderId] = useState(newId);
  const [chosen, setChosen] = useState<string[]>([]);
  const asks = asksOf(order).filter(({ cupId }) => chosen.includes(cupId));
  return (
    <Card style={{ gap: 8 }}>
      <Text bold>{WORDS.whichCupsSplit}</Text>
      {notCancelled(order).map((cup) => {
        const on = chosen.includes(cup.cupId);
        const what = WORDS.cupInOrder(order.cups.indexOf(cup) + 1, cupInWords(cup, units));
        return (
          <Button
            key={cup.cupId}
            label={what}
            says={on ? WORDS.isChosen(what) : what}
            kind={on ? 'chosen' : 'plain'}
            onPress={() =>
              setChosen(on ? chosen.filter((each) => each !== cup.cupId) : [...chosen, cup.cupId])
            }
          />
        );
      })}
      <Proposal
        events={asks.length > 0 ? [{ type: 'cups-moved', orderId: order.id, toOrderId, cups: asks }] : []}
        label={WORDS.splitOff}
        save={WORDS.split}
        onDone={onClose}
        onCancel={onClose}
      />
    </Card>
  );
}

export function Join({ order, onClose }: { order: OrderState; onClose: () => void }) {
  const { state } = useBar();
  const [to, setTo] = useState('');
  const others = openOrders(state).filter(({ id }) => id !== order.id);
  const goes = new Set(notCancelled(order).map(({ cupId }) => cupId));
  const cups = asksOf(order).filter(({ cupId }) => goes.has(cupId));
  return (
    <Card style={{ gap: 8 }}>
      {others.length === 0 ? (
        <Text quiet>{WORDS.noOtherOrder}</Text>
      ) : (
        <Select
          label={WORDS.joinWith}
          value={to}
          onChange={setTo}
          options={[
            { value: '', label: WORDS.chooseAnOrder },
            ...others.map(({ id, badge, name }) => ({
              value: id,
              label: WORDS.orderAndName(badgeOf(badge).letter, name ?? ''),
            })),
          ]}
        />
      )}
      <Proposal
        events={to === '' ? [] : [{ type: 'cups-moved', orderId: order.id, toOrderId: to, cups }]}
        label={WORDS.joined}
        save={WORDS.join}
        onDone={() => (onClose(), router.replace({ pathname: '/orders/[id]', params: { id: to } }))}
        onCancel={onClose}
      />
    </Card>
  );
}

export function OtherQueue({ order, bar, onClose }: { order: OrderState; bar: Bar; onClose: () => void }) {
  const { clock } = useHere();
  const queues = bar.queues ?? [];
  const now = queueOf(order).queueId ?? queues[0]?.id ?? '';
  const [to, setTo] = useState(now);
  const [pickUp, setPickUp] = useState('');
  const queue = queues.find(({ id }) => id === to);
  const pickUpMs = readPickUp(pickUp, clock.nowMs());
  // A queue of orders for a time asks for that time; the queue that it stands in already is no change.
  const isOther = queue?.promise === 'pick-up' ? pickUpMs !== null : to !== now;
  const { stroke: _ring, ...standsIn } = asInQueue(queue, pickUpMs);
  return (
    <Card style={{ gap: 8 }}>
      <QueueChoice
        queues={queues}
        value={to}
        onChange={setTo}
        pickUp={pickUp}
        onPickUp={setPickUp}
        isWrong={pickUp !== '' && pickUpMs === null}
      />
      <Proposal
        events={isOther ? [{ type: 'order-queued', orderId: order.id, ...standsIn }] : []}
        label={WORDS.movedTo(queue?.name ?? '')}
        save={WORDS.move}
        onDone={onClose}
        onCancel={onClose}
      />
    </Card>
  );
}

/** Nothing of it is brewed again; what is being brewed is stopped, or somebody else gets it. */
export function GuestLeft({ order, onClose }: { order: OrderState; onClose: () => void }) {
  const { state } = useBar();
  const brews = order.cups
    .filter(({ status, with: host }) => status === 'brewing' && !host)
    .flatMap((cup) => latestBrew(state, cup) ?? []);
  const [goes, setGoes] = useState<Record<string, string>>({});
  const events: NewEvent[] = [
    ...brews.flatMap((brew) => brewGoesEvents(brew, goes[brew.id] ?? '', state)),
    { type: 'guest-left', orderId: order.id },
  ];
  return (
    <Card style={{ gap: 8 }}>
      <Text bold>{WORDS.guestHasLeft}</Text>
      <Text>{WORDS.guestLeftHint}</Text>
      {brews.map((brew) => (
        <BrewGoes
          key={brew.id}
          brew={brew}
          to={goes[brew.id] ?? ''}
          onChange={(to) => setGoes({ ...goes, [brew.id]: to })}
        />
      ))}
      <Proposal
        events={events}
        label={WORDS.guestHasLeft}
        save={WORDS.guestHasLeft}
        onDone={() => (onClose(), router.replace('/orders'))}
        onCancel={onClose}
      />
    </Card>
  );
}
