/**
 * One cup of an order that is being taken: coffee, method, recipe and size.
 */
import { memo } from 'react';
import { badgeOf } from '@even-kettle/core/brew';
import { type Quote } from '@even-kettle/core/plan';
import { METHODS, METHOD_IDS, roastCaution, type MethodId, type Recipe } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showVolume, type Units } from '@even-kettle/core/units';
import { useBar, useNow } from '../../client/bar-context';
import { coffeeHint } from '../../words/hands-words';
import type { Bar } from '@even-kettle/core/contract';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Field } from '../../ui/field';
import { Select } from '../../ui/select';
import { useStable } from '../../ui/use-stable';
import { Text } from '../../ui/text';

import { Service } from './service-fields';
import { type Draft, type DraftRead } from '../../parts/orders/cup-draft';
import { sizeText } from '../../words/size-text';
import { WORDS } from '../../parts/orders/words';

/** The countdowns of the methods turn between the turns of the bar's clocks, and are rendered in slices. */
const PHASE_MS = 400;

type CupFormProps = {
  number: number;
  bar: Bar;
  menu: Recipe[];
  /** Sizes to choose by a tap, ml. */
  sizesMl: number[];
  units: Units;
  draft: Draft;
  read: DraftRead;
  /** By method, for the cup that is at hand; null where no times of other methods are asked for. */
  quotes: Record<string, Quote> | null;
  showFault: boolean;
  onChange: (key: string, part: Partial<Draft>) => void;
  onRemove: ((key: string) => void) | null;
};

/** A cup whose own figures have not changed is not rendered again while another is typed. */
export const CupForm = memo(function CupForm({
  number,
  bar,
  menu,
  sizesMl,
  units,
  draft,
  read,
  quotes,
  showFault,
  onChange: changeOf,
  onRemove,
}: CupFormProps) {
  const onChange = useStable((part: Partial<Draft>) => changeOf(draft.key, part));
  return (
    <Card style={{ gap: 10 }} ruled={!read.ok && showFault}>
      <Row style={{ justifyContent: 'space-between', minHeight: 32 }}>
        <Text bold>{WORDS.cup(number)}</Text>
        {onRemove ? (
          <Button
            kind="bare"
            icon="close"
            label=""
            says={WORDS.removeCup(number)}
            onPress={() => onRemove(draft.key)}
          />
        ) : null}
      </Row>
      <Kind
        number={number}
        bar={bar}
        menu={menu}
        coffeeId={draft.coffeeId}
        recipeId={draft.recipeId}
        quotes={quotes}
        onChange={onChange}
      />
      <Service number={number} draft={draft} onChange={onChange} />
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <Field
          label={WORDS.sizeForVolume(units.volume)}
          says={WORDS.sizeOfCupIn(number, units.volume)}
          inputMode="decimal"
          value={draft.sizeText}
          onChangeText={(sizeText) => onChange({ sizeText })}
          fault={!read.ok && showFault}
          style={{ width: 110 }}
        />
        <Sizes number={number} sizesMl={sizesMl} units={units} onChange={onChange} />
      </Row>
      {read.ok ? (
        <Text quiet>
          {WORDS.cupInFigures(
            inWords(showMass(read.doseG, units, 'dose')),
            inWords(showMass(read.brewWaterG, units, 'water')),
            showClock(read.brewTimeS),
          )}
        </Text>
      ) : showFault ? (
        <Text role="alert" bold>
          {read.reason}
        </Text>
      ) : null}
    </Card>
  );
});

type Change = (part: Partial<Draft>) => void;
type KindProps = Pick<CupFormProps, 'number' | 'bar' | 'menu' | 'quotes'> &
  Pick<Draft, 'coffeeId' | 'recipeId'> & { onChange: Change };

/** What kind of cup it is: coffee, method and recipe. Typing its size renders none of it. */
const Kind = memo(function Kind({ number, bar, menu, coffeeId, recipeId, quotes, onChange }: KindProps) {
  const chosen = menu.find(({ id }) => id === recipeId);
  const method = chosen?.method;
  const ofMethod = menu.filter((recipe) => recipe.method === method);
  const methods = METHOD_IDS.filter((id) => menu.some((recipe) => recipe.method === id));
  const { state } = useBar();
  const nowMs = useNow(1000, PHASE_MS);
  const roast = bar.coffees.find(({ id }) => id === coffeeId)?.roast;
  const caution = chosen && roast ? roastCaution(chosen, roast) : null;
  /** What it is like; or, where it has been worked out, how soon it would be and whom it holds up most. */
  const hintOf = (id: MethodId): string => {
    const quote = quotes?.[id];
    if (!quote) return METHODS[id].character;
    // The whole of it is said below, once the method is chosen.
    if (!quote.ok) return quote.reason.split(/[.:,] /)[0]!;
    const [most] = quote.shifts.filter(({ orderId, byS }) => byS > 0 && state.orders[orderId]);
    const ready = showClock(Math.max(0, Math.ceil(quote.readyS - nowMs / 1000)));
    if (!most) return `${METHODS[id].character} · ${ready}`;
    return WORDS.later(ready, badgeOf(state.orders[most.orderId]!.badge).letter, showClock(most.byS));
  };
  return (
    <>
      <Choice
        name={WORDS.coffeeOfCup(number)}
        value={coffeeId}
        onChange={(chosen) => onChange({ coffeeId: chosen })}
        options={bar.coffees.map((coffee) => ({
          value: coffee.id,
          label: coffee.name,
          hint: coffeeHint(coffee, nowMs),
        }))}
      />
      <Choice
        name={`Method of cup ${number}`}
        value={method ?? ''}
        onChange={(id) => onChange({ recipeId: menu.find((recipe) => recipe.method === id)!.id })}
        options={methods.map((id) => ({
          value: id,
          label: METHODS[id].name,
          hint: hintOf(id),
          // The time's room is kept while it is worked out, or all that stands below would move.
          pending: quotes && !quotes[id] ? ` · ${WORDS.timeToCome}` : undefined,
        }))}
      />
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label={WORDS.recipe}
          says={WORDS.recipeOfCup(number)}
          value={recipeId}
          onChange={(chosen) => onChange({ recipeId: chosen })}
          options={ofMethod.map(({ id, name }) => ({ value: id, label: name }))}
          style={{ flex: 2 }}
        />
      </Row>
      {caution ? (
        <Text role="note" bold size="small">
          {caution}
        </Text>
      ) : null}
    </>
  );
});

type SizesProps = Pick<CupFormProps, 'number' | 'sizesMl' | 'units'> & { onChange: Change };

const Sizes = memo(function Sizes({ number, sizesMl, units, onChange }: SizesProps) {
  return sizesMl.map((ml) => (
    <Button
      key={ml}
      label={sizeText(ml, units)}
      says={WORDS.forCup(inWords(showVolume(ml, units)), number)}
      onPress={() => onChange({ sizeText: sizeText(ml, units) })}
    />
  ));
});
