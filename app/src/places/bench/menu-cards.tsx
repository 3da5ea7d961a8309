/**
 * What the bar offers today, and the queues in which orders stand.
 */
import { STROKES } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { QUEUE_PROMISES } from '@even-kettle/core/plan';
import { METHODS, type Recipe } from '@even-kettle/core/recipe';
import { inWords, readVolume, showVolume } from '@even-kettle/core/units';
import { useState } from 'react';
import { useBar } from '../../client/bar-context';
import { Field } from '../../ui/field';
import { NumberField } from '../../ui/number-field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Switch } from '../../ui/switch';
import { DECIMAL } from '../../ui/typed';
import { recipesOn } from '../../parts/orders/cup-draft';
import { ListCard, NameField } from './list-card';
import { WORDS } from './words';

export function MenuCard({ bar }: { bar: Bar }) {
  const { recipes } = useBar();
  const here = recipesOn(bar, recipes);
  const nameOf = ({ method, name }: Recipe) => `${METHODS[method].name}: ${name}`;
  const [coffee] = bar.coffees;
  const [recipe] = here;
  return (
    <ListCard
      title={WORDS.menu}
      intro={WORDS.menuHint}
      setting="menu"
      bar={bar}
      addLabel={WORDS.menuLineName}
      fresh={(id) => ({ id, coffeeId: coffee?.id ?? '', recipeId: recipe?.id ?? '', sizesMl: [250] })}
      line={({ coffeeId, recipeId, sizesMl, off, before }) => {
        const found = recipes.find(({ id }) => id === recipeId);
        return {
          name: WORDS.menuLine(
            bar.coffees.find(({ id }) => id === coffeeId)?.name ?? WORDS.coffeeThatIsGone,
            found ? METHODS[found.method].name : WORDS.recipeThatIsGone,
          ),
          detail: [
            found?.name,
            sizesMl.map((ml) => inWords(showVolume(ml, bar.units))).join(', '),
            off ? WORDS.soldOut : null,
            before ? WORDS.onlyBefore(before) : null,
          ]
            .filter(Boolean)
            .join(' · '),
        };
      }}
      form={(line, set, wrong) => (
        <>
          <Row style={{ alignItems: 'flex-end' }}>
            <Select
              label={WORDS.coffee}
              value={line.coffeeId}
              options={bar.coffees.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={(coffeeId) => set({ coffeeId })}
              style={{ flex: 1 }}
            />
            <Select
              label={WORDS.recipe}
              value={line.recipeId}
              options={here.map((each) => ({ value: each.id, label: nameOf(each) }))}
              onChange={(recipeId) => set({ recipeId })}
              style={{ flex: 1 }}
            />
          </Row>
          <Row style={{ alignItems: 'flex-start', flexWrap: 'wrap' }}>
            <SizesField
              bar={bar}
              sizesMl={line.sizesMl}
              onChange={(sizesMl) => set({ sizesMl })}
              fault={wrong('sizesMl')}
            />
            <Field
              label={WORDS.offeredBefore}
              value={line.before ?? ''}
              maxLength={5}
              onChangeText={(before) => set({ before: before === '' ? undefined : before })}
              fault={wrong('before')}
              style={{ width: 150 }}
            />
          </Row>
          <Switch label={WORDS.soldOut} on={line.off ?? false} onChange={(off) => set({ off })} />
        </>
      )}
    />
  );
}

/** Sizes as they are said, "250, 350"; the first is what is meant where nothing is said. */
function SizesField({
  bar,
  sizesMl,
  onChange,
  fault,
}: {
  bar: Bar;
  sizesMl: number[];
  onChange: (sizesMl: number[]) => void;
  fault: boolean;
}) {
  const shown = sizesMl.map((ml) => showVolume(ml, bar.units).figure).join(', ');
  const [text, setText] = useState(shown);
  const readSizes = (typed: string): number[] =>
    typed.split(/[;,]\s+|;|\s+/).flatMap((part) => {
      if (part.trim() === '') return [];
      const read = readVolume(part, WORDS.size, bar.units, { min: 1, max: 10_000 }, DECIMAL);
      return [read.ok ? Math.round(read.value) : 0];
    });
  return (
    <Field
      label={WORDS.sizesTheUsualFirst(bar.units.volume)}
      value={text}
      onChangeText={(typed) => {
        setText(typed);
        onChange(readSizes(typed));
      }}
      fault={fault}
      style={{ flexGrow: 1, width: 160 }}
    />
  );
}

export const QueuesCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.queues}
    intro={WORDS.queuesHint}
    setting="queues"
    bar={bar}
    addLabel={WORDS.aQueue}
    fresh={(id) => ({ id, name: WORDS.newQueue, promise: 'soon' as const })}
    line={({ name, promise, withinMin, share, stroke }) => ({
      name,
      detail: [
        promise === 'within' ? WORDS.withinMinutes(withinMin ?? 10) : WORDS.promiseNames[promise],
        share === undefined || share === 1 ? null : WORDS.countsTimes(share),
        stroke ? WORDS.ringOf(stroke) : null,
      ]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(queue, set, wrong) => (
      <>
        <NameField of={queue} set={set} wrong={wrong} />
        <Row style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
          <Select
            label={WORDS.promise}
            value={queue.promise}
            options={QUEUE_PROMISES.map((value) => ({ value, label: WORDS.promiseNames[value] }))}
            onChange={(promise) => set({ promise })}
            style={{ flexGrow: 1, width: 180 }}
          />
          {queue.promise === 'within' ? (
            <NumberField
              label={WORDS.minutes}
              value={queue.withinMin ?? 10}
              onChange={(withinMin) => set({ withinMin })}
              fault={wrong('withinMin')}
            />
          ) : null}
          <NumberField
            label={WORDS.countsWhenFull}
            value={queue.share ?? 1}
            onChange={(share) => set({ share })}
            fault={wrong('share')}
          />
          <Select
            label={WORDS.ringOfItsBadges}
            value={queue.stroke ?? 'any'}
            options={[
              { value: 'any', label: WORDS.anyRing },
              ...STROKES.map((value) => ({ value, label: WORDS.ringOf(value) })),
            ]}
            onChange={(stroke) => set({ stroke: stroke === 'any' ? undefined : stroke })}
            style={{ flexGrow: 1, width: 140 }}
          />
        </Row>
      </>
    )}
  />
);
