/**
 * Taking an order: one to six cups, each a coffee, a recipe and a size. What no brewer here can make is said at once.
 */
import { useDeferredValue, useMemo, useState } from 'react';
import { router } from 'expo-router';
import { type Units } from '@even-kettle/core/units';
import { asInQueue, shareNow, timesOf, wavesOf, type Quote } from '@even-kettle/core/plan';
import { newId, useBar, useHere, useUnits } from '../../client/bar-context';
import { useDevice } from '../../device/settings';
import { useAct } from '../../device/use-act';
import type { Bar } from '@even-kettle/core/contract';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Field } from '../../ui/field';
import { Switch } from '../../ui/switch';
import { Form } from '../../ui/by-keys';
import { LeaveTap } from '../../ui/leave-tap';
import { useDraft } from '../../ui/use-draft';
import { APART_S, QuoteLine, type Closer } from '../../parts/orders/quote-line';
import { SharedBrew, neighbourOf } from './shared-brew';
import { useStable } from '../../ui/use-stable';
import { useCounter } from './use-counter';
import { useOnceThere } from './use-once-there';
import { useQuotes, type QuoteDraft } from '../../parts/orders/use-quotes';
import { Heading, Text } from '../../ui/text';
import { AsOne, mergedCups } from './as-one';
import {
  byMethod,
  firstDraft,
  otherWays,
  readDraft,
  sizesFor,
  withRecipe,
  type Draft,
} from '../../parts/orders/cup-draft';
import { CupForm } from './cup-form';
import { CupLine } from './cup-line';
import { Menu } from './menu';
import { QueueChoice, readPickUp } from '../../parts/orders/queue-choice';
import { Waves } from './waves';
import { WORDS } from '../../parts/orders/words';

const MOST_CUPS = 6;
const NONE: number[] = [];

type OrderDraft = { name: string; drafts: Draft[]; nameShown?: boolean };

/** An order that was being typed, as this version has it. */
function isOrderDraft(kept: unknown): kept is OrderDraft {
  const { name, drafts } = (kept ?? {}) as Partial<OrderDraft>;
  return (
    typeof name === 'string' &&
    Array.isArray(drafts) &&
    drafts.every(
      ({ key, coffeeId, recipeId, sizeText, allergy, note, milk, additions, toGo }) =>
        [key, coffeeId, recipeId, sizeText, allergy, note, milk].every((each) => typeof each === 'string') &&
        Array.isArray(additions) &&
        typeof toGo === 'boolean',
    )
  );
}

/** A way is worth a word where it brings the cups so much closer together, seconds. */
const WORTH_S = 60;

/** The way that brings the cups closest together; null where none is worth it. */
function closest(quotes: Record<string, Quote>, ways: { name: string; what: string }[]): Closer | null {
  const order = quotes['order'];
  if (!order?.ok) return null;
  return ways
    .flatMap(({ name, what }) => {
      const quote = quotes[name];
      return quote?.ok ? [{ what, apartS: quote.apartS }] : [];
    })
    .filter(({ apartS }) => apartS <= order.apartS - WORTH_S)
    .reduce<Closer | null>((best, way) => (best && best.apartS <= way.apartS ? best : way), null);
}

export function NewOrder() {
  const { bar } = useBar();
  const units = useUnits();
  if (!bar) {
    return (
      <Page>
        <Loading what={WORDS.theMenu} height={300} />
      </Page>
    );
  }
  if (bar.stations.length === 0 || bar.coffees.length === 0)
    return (
      <Page>
        <Notice
          title={WORDS.nothingToBrewWith}
          action={<Button kind="main" label={WORDS.firstDay} onPress={() => router.push('/first-day')} />}
        >
          {WORDS.orderNeedsBrewer}
        </Notice>
      </Page>
    );
  return <OrderForm key={units.volume} bar={bar} units={units} />;
}

// eslint-disable-next-line max-lines-per-function -- the arrangement of one form
function OrderForm({ bar, units }: { bar: Bar; units: Units }) {
  const { clock } = useHere();
  const act = useAct();
  const { book, state } = useBar();
  const { guestCode } = useDevice();
  const counter = useCounter(bar);
  const { menu } = counter;
  const hasMenu = (bar.menu?.length ?? 0) > 0;
  const [{ name, drafts, nameShown = false }, keepDraft, forgetDraft] = useDraft<OrderDraft>(
    `order.${units.volume}`,
    () => ({ name: '', drafts: hasMenu ? [] : [firstDraft(counter)] }),
    isOrderDraft,
  );
  const setName = (next: string) => keepDraft({ name: next, drafts, nameShown });
  const setDrafts = (next: Draft[]) => keepDraft({ name, drafts: next, nameShown });
  const [asked, setAsked] = useState(false);
  const read = useMemo(() => drafts.map((draft) => readDraft(draft, counter)), [drafts, counter]);
  const allRight = drafts.length > 0 && read.every(({ ok }) => ok);
  const cups = useMemo(() => read.flatMap((each) => (each.ok ? [each.cup] : [])), [read]);
  const [asOne, setAsOne] = useState(false);
  const merged = useMemo(() => mergedCups(cups, bar, book), [cups, bar, book]);
  const together = asOne && merged !== null;
  // One cup may be poured out of a brew that another order waits for.
  const [share, setShare] = useState(false);
  const neighbour = cups.length === 1 ? neighbourOf(cups[0], state, bar, book, clock.nowMs()) : null;
  const shared = share && neighbour !== null;
  const chosen = together ? merged : shared ? [neighbour.cup] : cups;
  const [activeKey, setActiveKey] = useState(drafts[0]?.key ?? '');
  // A cup off the menu is a line until somebody wants to change it.
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [queueId, setQueueId] = useState(bar.queues?.[0]?.id ?? '');
  const [pickUp, setPickUp] = useState('');
  const [inWaves, setInWaves] = useState(false);
  const queue = bar.queues?.find(({ id }) => id === queueId);
  const pickUpMs = queue?.promise === 'pick-up' ? readPickUp(pickUp, clock.nowMs()) : null;
  const standsIn = asInQueue(queue, pickUpMs);
  const active = Math.max(
    0,
    drafts.findIndex(({ key }) => key === activeKey),
  );
  // What is typed is shown at once; every other way to brew it is worked out a moment later, in slices.
  const settled = useDeferredValue(drafts);
  const settledActive = Math.max(0, Math.min(active, settled.length - 1));
  const methodAsks = useMemo(
    () => byMethod(settled, settledActive, counter),
    [settled, settledActive, counter],
  );
  const sizes = useMemo(
    () => new Map(settled.map((draft) => [draft.key, sizesFor(draft, counter)])),
    [settled, counter],
  );
  const ways = useMemo(() => (settled.length > 1 ? otherWays(settled, counter) : []), [settled, counter]);
  const isApart = (each: Quote | undefined) => each?.ok === true && each.apartS > APART_S;
  // Every way is asked for in the same queue, or their times could not be compared.
  const inThisQueue = (asks: QuoteDraft[]): QuoteDraft[] => asks.map((ask) => ({ ...ask, queue: standsIn }));
  const { quotes, careful } = useQuotes(
    inThisQueue(
      allRight
        ? [
            { name: 'order', cups: chosen, carefully: true },
            ...(merged
              ? [{ name: WORDS.otherWay, cups: together ? cups : merged, carefully: true as const }]
              : []),
            ...(neighbour
              ? [{ name: WORDS.withAnother, cups: shared ? cups : [neighbour.cup], carefully: true as const }]
              : []),
            ...(together || shared ? [] : methodAsks),
          ]
        : [],
    ),
    (known) =>
      inThisQueue(known.careful.has('order') && isApart(known.quotes['order']) && !together ? ways : []),
  );
  const methodQuotes = useDeferredValue(quotes);
  const quote = quotes['order'];
  const closer = isApart(quote)
    ? closest(quotes, [
        ...ways,
        ...(merged && !together ? [{ name: WORDS.otherWay, what: WORDS.alikeAsOne }] : []),
      ])
    : null;

  const change = useStable((key: string, part: Partial<Draft>) => {
    setActiveKey(key);
    setDrafts(
      drafts.map((draft) => {
        if (draft.key !== key) return draft;
        const changed = { ...draft, ...part };
        return part.recipeId ? withRecipe(changed, part.recipeId, counter) : changed;
      }),
    );
  });
  const remove = useStable((gone: string) => setDrafts(drafts.filter(({ key }) => key !== gone)));
  const waves = quote?.ok && quote.apartS > APART_S && !together && !shared ? wavesOf(quote.outS) : [];
  const take = () => {
    const trimmed = name.trim();
    const nowS = clock.nowMs() / 1000;
    // Each wave is an order of its own, with a promise of its own.
    const parts = inWaves && waves.length > 1 ? waves : [chosen.map((_, index) => index)];
    const events = parts.map((indexes, wave) => {
      const outS = quote?.ok ? Math.max(...indexes.map((index) => quote.outS[index] ?? quote.readyS)) : null;
      const called = parts.length > 1 ? WORDS.waveName(trimmed, wave + 1, parts.length) : trimmed;
      return {
        type: 'order-taken' as const,
        orderId: newId(),
        ...(called ? { name: called } : {}),
        ...(called && nameShown ? { nameShown: true as const } : {}),
        ...(outS === null ? {} : timesOf(outS, nowS, standsIn, shareNow(state, bar))),
        ...standsIn,
        cups: indexes.map((index) => chosen[index]!),
      };
    });
    if (!act(events, WORDS.order)) return;
    forgetDraft();
    if (guestCode)
      router.replace({ pathname: '/orders/[id]', params: { id: events[0]!.orderId, guest: 'code' } });
    else router.replace('/');
  };
  const [waiting, takeOnceQuoted] = useOnceThere(careful.has('order'), take);

  const lacksTime = queue?.promise === 'pick-up' && pickUpMs === null;
  const submit = () => {
    setAsked(true);
    if (allRight && !lacksTime) takeOnceQuoted();
  };

  return (
    <Page>
      <Form onSubmit={submit} style={{ gap: 12 }}>
        <Row style={{ justifyContent: 'space-between' }}>
          <Heading>{WORDS.newOrder}</Heading>
          <LeaveTap
            icon="close"
            label={WORDS.cancel}
            changed={name.trim() !== '' || drafts.length > (hasMenu ? 0 : 1)}
            onLeave={() => (forgetDraft(), router.replace('/orders'))}
          />
        </Row>
        {hasMenu ? (
          <Menu
            counter={counter}
            onCup={(draft) =>
              drafts.length < MOST_CUPS && (setDrafts([...drafts, draft]), setActiveKey(draft.key))
            }
            onAgain={(again) => keepDraft({ name: again.name, drafts: again.drafts.slice(0, MOST_CUPS) })}
            taken={drafts.length}
          />
        ) : null}
        {drafts.map((draft, index) =>
          hasMenu && !opened.has(draft.key) ? (
            <CupLine
              key={draft.key}
              number={index + 1}
              draft={draft}
              read={read[index]!}
              sizesMl={sizes.get(draft.key) ?? NONE}
              counter={counter}
              onChange={change}
              onOpen={() => setOpened(new Set([...opened, draft.key]))}
              onRemove={remove}
            />
          ) : (
            <CupForm
              key={draft.key}
              number={index + 1}
              bar={bar}
              menu={menu}
              sizesMl={sizes.get(draft.key) ?? NONE}
              units={units}
              draft={draft}
              read={read[index]!}
              quotes={index === active && !together && !shared ? methodQuotes : null}
              showFault={asked || draft.sizeText !== ''}
              onChange={change}
              onRemove={drafts.length > 1 || hasMenu ? remove : null}
            />
          ),
        )}
        {bar.queues && bar.queues.length > 1 ? (
          <QueueChoice
            queues={bar.queues}
            value={queueId}
            onChange={setQueueId}
            pickUp={pickUp}
            onPickUp={setPickUp}
            isWrong={queue?.promise === 'pick-up' && asked && pickUpMs === null}
          />
        ) : null}
        <Row style={{ alignItems: 'flex-end' }}>
          <Button
            icon="plus"
            label={WORDS.anotherCup}
            disabled={drafts.length >= MOST_CUPS}
            onPress={() => {
              const key = newId();
              setActiveKey(key);
              setOpened(new Set([...opened, key]));
              // The next cup is like the last one, but another guest's wishes are another's.
              setDrafts([
                ...drafts,
                { ...(drafts.at(-1) ?? firstDraft(counter)), key, allergy: '', note: '' },
              ]);
            }}
            testID="add-cup"
          />
          <Field
            label={WORDS.forWhom}
            value={name}
            maxLength={40}
            onChangeText={setName}
            style={{ flex: 1 }}
          />
        </Row>
        {name.trim() === '' ? null : (
          <Switch
            label={WORDS.nameOnBoard}
            on={nameShown}
            onChange={(shown) => keepDraft({ name, drafts, nameShown: shown })}
          />
        )}
        {drafts.length >= MOST_CUPS ? <Text quiet>{WORDS.sixCupsAtMost}</Text> : null}
        {allRight ? (
          <Card>
            <QuoteLine quote={quote} closer={closer} queue={queue} standsIn={standsIn} />
            {quote?.ok && waves.length > 1 ? (
              <Waves waves={waves} outS={quote.outS} inWaves={inWaves} onChange={setInWaves} />
            ) : null}
            {merged ? (
              <AsOne
                cups={cups.length - merged.length + 1}
                here={quote}
                other={quotes['other way']}
                together={together}
                onChange={setAsOne}
              />
            ) : null}
            {neighbour ? (
              <SharedBrew
                neighbour={neighbour}
                here={quote}
                other={quotes['with another']}
                shared={shared}
                onChange={setShare}
              />
            ) : null}
          </Card>
        ) : null}
        <Button
          kind="main"
          label={
            waiting
              ? WORDS.workingOutReady
              : drafts.length <= 1
                ? WORDS.takeTheOrder
                : WORDS.takeCups(drafts.length)
          }
          disabled={waiting || drafts.length === 0}
          onPress={submit}
          testID="take-order"
          style={{ minHeight: 72 }}
        />
      </Form>
    </Page>
  );
}
