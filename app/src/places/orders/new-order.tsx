/**
 * Taking an order: one to six cups, each a coffee, a recipe and a size. What no brewer here can make is said at once.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import { MOST_CUPS_OF_A_BREW, areAlike, badgeOf, type CupAsk } from '@even-kettle/core/brew';
import { cardFor, type Quote } from '@even-kettle/core/plan';
import {
  ADDITIONS,
  CUP_RANGE_ML,
  METHODS,
  METHOD_IDS,
  brewerById,
  type Addition,
  type MethodId,
  type Recipe,
  type RecipeBook,
} from '@even-kettle/core/recipe';
import {
  ML_PER_FL_OZ,
  inWords,
  readVolume,
  showClock,
  showMass,
  showVolume,
  type Units,
} from '@even-kettle/core/units';
import { newId, useBar, useHere, useNow, useUnits } from '../../bar/bar-context';
import { coffeeHint } from '../../bar/words';
import type { Bar } from '@even-kettle/core/contract';
import { Card, Choice, Loading, Page, Row, Tap } from '../../ui/parts';
import { Field } from '../../ui/field';
import { Select } from '../../ui/select';
import { QuoteLine } from './quote-line';
import { SharedBrew, neighbourOf } from './shared-brew';
import { useQuotes, type QuoteDraft } from './use-quotes';
import { Heading, Text } from '../../ui/text';

const MOST_CUPS = 6;
const PRESETS_ML = [200, 250, 300];

type Draft = {
  key: string;
  coffeeId: string;
  recipeId: string;
  sizeText: string;
  addition: Addition | 'nothing';
};

export function NewOrder() {
  const { bar } = useBar();
  const units = useUnits();
  if (!bar) {
    return (
      <Page>
        <Loading what="the menu" height={300} />
      </Page>
    );
  }
  return <OrderForm key={units.volume} bar={bar} units={units} />;
}

function OrderForm({ bar, units }: { bar: Bar; units: Units }) {
  const { store, clock } = useHere();
  const { recipes, book, state } = useBar();
  const menu = recipesOn(bar, recipes);
  const [name, setName] = useState('');
  const [drafts, setDrafts] = useState<Draft[]>(() => [firstDraft(bar, menu, units)]);
  const [asked, setAsked] = useState(false);
  const read = drafts.map((draft) => readDraft(draft, bar, menu, book, units));
  const allRight = read.every(({ ok }) => ok);
  const cups = read.flatMap((each) => (each.ok ? [each.cup] : []));
  const [asOne, setAsOne] = useState(false);
  const merged = mergedCups(cups, bar, book);
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
  const quotes = useQuotes(
    allRight
      ? [
          { name: 'order', cups: chosen },
          ...(merged ? [{ name: 'other way', cups: together ? cups : merged }] : []),
          ...(neighbour ? [{ name: 'with another', cups: shared ? cups : [neighbour.cup] }] : []),
          ...(together || shared ? [] : byMethod(drafts, active, bar, menu, book, units)),
        ]
      : [],
  );
  const quote = quotes['order'];

  const change = (key: string, part: Partial<Draft>) => {
    setActiveKey(key);
    setDrafts(drafts.map((draft) => (draft.key === key ? { ...draft, ...part } : draft)));
  };
  const take = () => {
    setAsked(true);
    if (!allRight) return;
    const trimmed = name.trim();
    const taken = store.act(
      [
        {
          id: newId(),
          type: 'order-taken',
          atMs: clock.nowMs(),
          orderId: newId(),
          ...(trimmed ? { name: trimmed } : {}),
          ...(quote?.ok ? { promisedMs: promiseOf(quote.readyS) } : {}),
          cups: chosen,
        },
      ],
      'Order',
    );
    if (taken) router.replace('/');
  };

  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>New order</Heading>
        <Tap kind="bare" icon="close" label="Leave" onPress={() => router.replace('/orders')} />
      </Row>
      {drafts.map((draft, index) => (
        <CupForm
          key={draft.key}
          number={index + 1}
          bar={bar}
          menu={menu}
          units={units}
          draft={draft}
          read={read[index]!}
          quotes={index === active && !together && !shared ? quotes : {}}
          showFault={asked || draft.sizeText !== ''}
          onChange={(part) => change(draft.key, part)}
          onRemove={drafts.length > 1 ? () => setDrafts(drafts.filter(({ key }) => key !== draft.key)) : null}
        />
      ))}
      <Row style={{ alignItems: 'flex-end' }}>
        <Tap
          icon="plus"
          label="Another cup"
          disabled={drafts.length >= MOST_CUPS}
          onPress={() => {
            const key = newId();
            setActiveKey(key);
            setDrafts([...drafts, { ...drafts.at(-1)!, key }]);
          }}
          testID="add-cup"
        />
        <Field label="For whom" value={name} maxLength={40} onChangeText={setName} style={{ flex: 1 }} />
      </Row>
      {drafts.length >= MOST_CUPS ? <Text quiet>Six cups are the most for one order.</Text> : null}
      {allRight ? (
        <Card>
          <QuoteLine quote={quote} />
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
      <Tap
        kind="main"
        label={drafts.length === 1 ? 'Take the order' : `Take ${drafts.length} cups`}
        onPress={take}
        testID="take-order"
        style={{ minHeight: 72 }}
      />
    </Page>
  );
}

/** A promise is said in whole tens of seconds, and no sooner than the plan has it, bar milliseconds. */
const promiseOf = (readyS: number): number => Math.ceil(readyS / 10) * 10_000;

/** Cups that are alike can be poured out of one larger brew; this says which way is sooner. */
function AsOne({
  cups,
  here,
  other,
  together,
  onChange,
}: {
  cups: number;
  here: Quote | undefined;
  other: Quote | undefined;
  together: boolean;
  onChange: (together: boolean) => void;
}) {
  if (!here?.ok || !other?.ok) return null;
  const soonerS = here.readyS - other.readyS;
  if (together)
    return (
      <Row style={{ flexWrap: 'wrap' }}>
        <Text style={{ flex: 1, minWidth: 180 }}>
          One brew for {cups} cups
          {soonerS < -WORTH_S ? `, ${showClock(-soonerS)} sooner than each by itself` : ''}.
        </Text>
        <Tap label="Each by itself" onPress={() => onChange(false)} />
      </Row>
    );
  if (soonerS < WORTH_S) return null;
  return (
    <Row style={{ flexWrap: 'wrap' }}>
      <Text style={{ flex: 1, minWidth: 180 }}>
        {cups} cups are alike: as one brew the order is out {showClock(soonerS)} sooner.
      </Text>
      <Tap label={`Brew the ${cups} as one`} onPress={() => onChange(true)} testID="as-one" />
    </Row>
  );
}
/** A difference worth offering, seconds. */
const WORTH_S = 15;

/** The cups with those that are alike as one brew; null where none are, or no brewer here takes them together. */
function mergedCups(cups: CupAsk[], bar: Bar, book: RecipeBook): CupAsk[] | null {
  const merged: CupAsk[] = [];
  for (const cup of cups) {
    const at = merged.findIndex((each) => areAlike(each, cup) && (each.cups ?? 1) < MOST_CUPS_OF_A_BREW);
    const larger = at < 0 ? null : { ...merged[at]!, cups: (merged[at]!.cups ?? 1) + 1 };
    if (larger && cardFor(bar, larger, book).ok) merged[at] = larger;
    else merged.push(cup);
  }
  return merged.length < cups.length ? merged : null;
}

/** The order with the cup at hand brewed by each method in turn. */
function byMethod(
  drafts: Draft[],
  active: number,
  bar: Bar,
  menu: Recipe[],
  book: RecipeBook,
  units: Units,
): QuoteDraft[] {
  const methods = [...new Set(menu.map(({ method }) => method))];
  return methods.flatMap((method) => {
    const read = drafts.map((draft, index) => {
      const own = menu.find(({ id }) => id === draft.recipeId)!;
      const recipe = own.method === method ? own : menu.find((each) => each.method === method)!;
      return readDraft(index === active ? { ...draft, recipeId: recipe.id } : draft, bar, menu, book, units);
    });
    const cups = read.flatMap((each) => (each.ok ? [each.cup] : []));
    return cups.length === drafts.length ? [{ name: method, cups }] : [];
  });
}

type CupFormProps = {
  number: number;
  bar: Bar;
  menu: Recipe[];
  units: Units;
  draft: Draft;
  read: DraftRead;
  /** By method, for the cup that is at hand. */
  quotes: Record<string, Quote>;
  showFault: boolean;
  onChange: (part: Partial<Draft>) => void;
  onRemove: (() => void) | null;
};

function CupForm({
  number,
  bar,
  menu,
  units,
  draft,
  read,
  quotes,
  showFault,
  onChange,
  onRemove,
}: CupFormProps) {
  const method = menu.find(({ id }) => id === draft.recipeId)?.method;
  const ofMethod = menu.filter((recipe) => recipe.method === method);
  const methods = METHOD_IDS.filter((id) => menu.some((recipe) => recipe.method === id));
  const { state } = useBar();
  const nowMs = useNow(1000);
  /** What it is like; or, where it has been worked out, how soon it would be and whom it holds up most. */
  const hintOf = (id: MethodId): string => {
    const quote = quotes[id];
    if (!quote?.ok) return METHODS[id].character;
    const [most] = quote.shifts.filter(({ orderId, byS }) => byS > 0 && state.orders[orderId]);
    const ready = showClock(Math.max(0, Math.ceil(quote.readyS - nowMs / 1000)));
    if (!most) return `${METHODS[id].character} · ${ready}`;
    return `${ready}, ${badgeOf(state.orders[most.orderId]!.badge).letter} ${showClock(most.byS)} later`;
  };
  const choose = (id: MethodId) => onChange({ recipeId: menu.find((recipe) => recipe.method === id)!.id });
  return (
    <Card style={{ gap: 10 }} ruled={!read.ok && showFault}>
      <Row style={{ justifyContent: 'space-between', minHeight: 32 }}>
        <Text bold>Cup {number}</Text>
        {onRemove ? (
          <Tap kind="bare" icon="close" label="" says={`Remove cup ${number}`} onPress={onRemove} />
        ) : null}
      </Row>
      <Choice
        name={`Coffee of cup ${number}`}
        value={draft.coffeeId}
        onChange={(coffeeId) => onChange({ coffeeId })}
        options={bar.coffees.map((coffee) => ({
          value: coffee.id,
          label: coffee.name,
          hint: coffeeHint(coffee, nowMs),
        }))}
      />
      <Choice
        name={`Method of cup ${number}`}
        value={method ?? ''}
        onChange={(id) => choose(id as MethodId)}
        options={methods.map((id) => ({ value: id, label: METHODS[id].name, hint: hintOf(id) }))}
      />
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label="Recipe"
          says={`Recipe of cup ${number}`}
          value={draft.recipeId}
          onChange={(recipeId) => onChange({ recipeId })}
          options={ofMethod.map(({ id, name }) => ({ value: id, label: name }))}
          style={{ flex: 2 }}
        />
        <Select
          label="Added"
          says={`Added to cup ${number}`}
          value={draft.addition}
          onChange={(addition) => onChange({ addition })}
          options={(['nothing', ...ADDITIONS] as const).map((value) => ({ value, label: value }))}
          style={{ flex: 1 }}
        />
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <Field
          label={`Size, ${units.volume}`}
          says={`Size of cup ${number} in ${units.volume}`}
          inputMode="decimal"
          value={draft.sizeText}
          onChangeText={(sizeText) => onChange({ sizeText })}
          fault={!read.ok && showFault}
          style={{ width: 110 }}
        />
        {PRESETS_ML.map((ml) => (
          <Tap
            key={ml}
            label={sizeText(ml, units)}
            says={`${inWords(showVolume(ml, units))} for cup ${number}`}
            onPress={() => onChange({ sizeText: sizeText(ml, units) })}
          />
        ))}
      </Row>
      {read.ok ? (
        <Text quiet>
          {inWords(showMass(read.doseG, units, 'dose'))} to{' '}
          {inWords(showMass(read.brewWaterG, units, 'water'))} water, {showClock(read.brewTimeS)} on the timer
        </Text>
      ) : showFault ? (
        <Text role="alert" bold>
          {read.reason}
        </Text>
      ) : null}
    </Card>
  );
}

type DraftRead =
  | { ok: true; cup: CupAsk; doseG: number; brewWaterG: number; brewTimeS: number }
  | { ok: false; reason: string };

function readDraft(draft: Draft, bar: Bar, menu: Recipe[], book: RecipeBook, units: Units): DraftRead {
  const size = readVolume(draft.sizeText, 'Size', units, CUP_RANGE_ML);
  if (!size.ok) return size;
  const coffee = bar.coffees.find(({ id }) => id === draft.coffeeId);
  const recipe = menu.find(({ id }) => id === draft.recipeId);
  if (!coffee || !recipe) return { ok: false, reason: 'Choose a coffee and a method.' };
  const cup: CupAsk = {
    cupId: draft.key,
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    coffee: coffee.name,
    roast: coffee.roast,
    cupMl: Math.round(size.value),
    ...(draft.addition === 'nothing' ? {} : { addition: draft.addition }),
  };
  const found = cardFor(bar, cup, book);
  if (!found.ok) return found;
  const { doseG, brewWaterG, brewTimeS } = found.card;
  return { ok: true, cup, doseG, brewWaterG, brewTimeS };
}

/** Recipes of the methods that a station here brews. */
const recipesOn = (bar: Bar, recipes: Recipe[]): Recipe[] =>
  recipes.filter(({ method }) =>
    bar.stations.some(({ brewerId }) => brewerById(brewerId)?.method === method),
  );

const firstDraft = (bar: Bar, menu: Recipe[], units: Units): Draft => ({
  key: newId(),
  coffeeId: bar.coffees[0]?.id ?? '',
  recipeId: menu[0]?.id ?? '',
  addition: 'nothing',
  sizeText: sizeText(250, units),
});

const sizeText = (ml: number, units: Units): string =>
  units.volume === 'fl oz' ? (ml / ML_PER_FL_OZ).toFixed(1) : String(ml);
