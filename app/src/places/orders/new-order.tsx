/**
 * Taking an order: one to six cups, each a coffee, a recipe and a size. What no brewer here can make is said at once.
 */
import { useDeferredValue, useMemo, useState } from 'react';
import { router } from 'expo-router';
import { type Units } from '@even-kettle/core/units';
import { promiseS, type Quote } from '@even-kettle/core/plan';
import { newId, useBar, useHere, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import type { Bar } from '@even-kettle/core/contract';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Field } from '../../ui/field';
import { Form } from '../../ui/by-keys';
import { LeaveTap } from '../../ui/leave-tap';
import { useDraft } from '../../ui/use-draft';
import { APART_S, QuoteLine, type Closer } from './quote-line';
import { SharedBrew, neighbourOf } from './shared-brew';
import { useStable } from '../../ui/use-stable';
import { useOnceThere } from './use-once-there';
import { useQuotes } from './use-quotes';
import { Heading, Text } from '../../ui/text';
import { AsOne, mergedCups } from './as-one';
import {
  byMethod,
  firstDraft,
  otherWays,
  readDraft,
  recipesOn,
  sizesFor,
  withRecipe,
  type Draft,
} from './cup-draft';
import { CupForm } from './cup-form';
import { WORDS } from './words';

const MOST_CUPS = 6;
const NONE: number[] = [];
const UNASKED: Record<string, Quote> = {};

type OrderDraft = { name: string; drafts: Draft[] };

/** An order that was being typed, as this version has it. */
function isOrderDraft(kept: unknown): kept is OrderDraft {
  const { name, drafts } = (kept ?? {}) as Partial<OrderDraft>;
  return (
    typeof name === 'string' &&
    Array.isArray(drafts) &&
    drafts.length > 0 &&
    drafts.every(({ key, coffeeId, recipeId, sizeText, addition }) =>
      [key, coffeeId, recipeId, sizeText, addition].every((each) => typeof each === 'string'),
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
  return <OrderForm key={units.volume} bar={bar} units={units} />;
}

// eslint-disable-next-line max-lines-per-function -- the arrangement of one form
function OrderForm({ bar, units }: { bar: Bar; units: Units }) {
  const { clock } = useHere();
  const act = useAct();
  const { recipes, book, state } = useBar();
  const menu = useMemo(() => recipesOn(bar, recipes), [bar, recipes]);
  const [{ name, drafts }, keepDraft, forgetDraft] = useDraft<OrderDraft>(
    `order.${units.volume}`,
    () => ({ name: '', drafts: [firstDraft(bar, menu, units)] }),
    isOrderDraft,
  );
  const setName = (next: string) => keepDraft({ name: next, drafts });
  const setDrafts = (next: Draft[]) => keepDraft({ name, drafts: next });
  const [asked, setAsked] = useState(false);
  const read = useMemo(
    () => drafts.map((draft) => readDraft(draft, bar, menu, book, units)),
    [drafts, bar, menu, book, units],
  );
  const allRight = read.every(({ ok }) => ok);
  const cups = useMemo(() => read.flatMap((each) => (each.ok ? [each.cup] : [])), [read]);
  const [asOne, setAsOne] = useState(false);
  const merged = useMemo(() => mergedCups(cups, bar, book), [cups, bar, book]);
  const together = asOne && merged !== null;
  // One cup may be poured out of a brew that another order waits for.
  const [share, setShare] = useState(false);
  const neighbour = cups.length === 1 ? neighbourOf(cups[0], state, bar, book, clock.nowMs()) : null;
  const shared = share && neighbour !== null;
  const chosen = together ? merged : shared ? [neighbour.cup] : cups;
  const [activeKey, setActiveKey] = useState(drafts[0]!.key);
  const active = Math.max(
    0,
    drafts.findIndex(({ key }) => key === activeKey),
  );
  // What is typed is shown at once; every other way to brew it is worked out a moment later, in slices.
  const settled = useDeferredValue(drafts);
  const settledActive = Math.min(active, settled.length - 1);
  const methodAsks = useMemo(
    () => byMethod(settled, settledActive, bar, menu, book, units),
    [settled, settledActive, bar, menu, book, units],
  );
  const sizes = useMemo(
    () => new Map(settled.map((draft) => [draft.key, sizesFor(draft, bar, menu, book, units)])),
    [settled, bar, menu, book, units],
  );
  const ways = useMemo(
    () => (settled.length > 1 ? otherWays(settled, bar, menu, book, units) : []),
    [settled, bar, menu, book, units],
  );
  const isApart = (each: Quote | undefined) => each?.ok === true && each.apartS > APART_S;
  const { quotes, careful } = useQuotes(
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
    (known) => (known.careful.has('order') && isApart(known.quotes['order']) && !together ? ways : []),
  );
  const methodQuotes = useDeferredValue(quotes);
  const quote = quotes['order'];
  const closer = isApart(quote)
    ? closest(quotes, [
        ...ways,
        ...(merged && !together ? [{ name: WORDS.otherWay, what: WORDS.alikeCupsAsOneBrew }] : []),
      ])
    : null;

  const change = useStable((key: string, part: Partial<Draft>) => {
    setActiveKey(key);
    setDrafts(
      drafts.map((draft) => {
        if (draft.key !== key) return draft;
        const changed = { ...draft, ...part };
        return part.recipeId ? withRecipe(changed, part.recipeId, bar, menu, book, units) : changed;
      }),
    );
  });
  const remove = useStable((gone: string) => setDrafts(drafts.filter(({ key }) => key !== gone)));
  const take = () => {
    const trimmed = name.trim();
    const taken = act(
      [
        {
          type: 'order-taken',
          orderId: newId(),
          ...(trimmed ? { name: trimmed } : {}),
          ...(quote?.ok
            ? {
                promisedMs: promiseS(quote.readyS, clock.nowMs() / 1000, bar.promiseShare) * 1000,
                expectedMs: Math.ceil(quote.readyS) * 1000,
              }
            : {}),
          cups: chosen,
        },
      ],
      WORDS.order,
    );
    if (!taken) return;
    forgetDraft();
    router.replace('/');
  };
  const [waiting, takeOnceQuoted] = useOnceThere(careful.has('order'), take);

  const submit = () => {
    setAsked(true);
    if (allRight) takeOnceQuoted();
  };

  return (
    <Page>
      <Form onSubmit={submit} style={{ gap: 12 }}>
        <Row style={{ justifyContent: 'space-between' }}>
          <Heading>{WORDS.newOrder}</Heading>
          <LeaveTap
            icon="close"
            label={WORDS.cancel}
            changed={name.trim() !== '' || drafts.length > 1}
            onLeave={() => (forgetDraft(), router.replace('/orders'))}
          />
        </Row>
        {drafts.map((draft, index) => (
          <CupForm
            key={draft.key}
            number={index + 1}
            bar={bar}
            menu={menu}
            sizesMl={sizes.get(draft.key) ?? NONE}
            units={units}
            draft={draft}
            read={read[index]!}
            quotes={index === active && !together && !shared ? methodQuotes : UNASKED}
            showFault={asked || draft.sizeText !== ''}
            onChange={change}
            onRemove={drafts.length > 1 ? remove : null}
          />
        ))}
        <Row style={{ alignItems: 'flex-end' }}>
          <Button
            icon="plus"
            label={WORDS.anotherCup}
            disabled={drafts.length >= MOST_CUPS}
            onPress={() => {
              const key = newId();
              setActiveKey(key);
              setDrafts([...drafts, { ...drafts.at(-1)!, key }]);
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
        {drafts.length >= MOST_CUPS ? <Text quiet>{WORDS.sixCupsAreTheMostFor}</Text> : null}
        {allRight ? (
          <Card>
            <QuoteLine quote={quote} closer={closer} />
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
              ? WORDS.workingOutWhenItWouldBe
              : drafts.length === 1
                ? WORDS.takeTheOrder
                : WORDS.takeCups(drafts.length)
          }
          disabled={waiting}
          onPress={submit}
          testID="take-order"
          style={{ minHeight: 72 }}
        />
      </Form>
    </Page>
  );
}
