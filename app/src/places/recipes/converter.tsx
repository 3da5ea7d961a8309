/**
 * The converter: any field can lead, the rest follow as one types; any number can be asked why.
 */
import { useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { Touch } from '../../ui/touch';
import {
  bandInWords,
  uncertaintiesOf,
  wayOutInWords,
  why,
  type Recipe,
  type Uncertainty,
  type WayOut,
  type WhyOf,
} from '@even-kettle/core/recipe';
import { inWords, showMass, showVolume, type Units } from '@even-kettle/core/units';
import type { Bar } from '@even-kettle/core/contract';
import { useNow } from '../../client/bar-context';
import { coffeeHint } from '../../words/hands-words';
import { Field } from '../../ui/field';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { TOUCH } from '../../ui/theme';
import type { ConverterInput, Lead } from './asked';
import type { Conversion } from './conversion';
import { Circumstances, type ConverterProps } from './circumstances';
import { sizeText } from '../../words/size-text';
import { factsOf } from './facts';
import { WhyCard } from './why-card';
import { WORDS } from './words';

const PRESETS_ML = [200, 250, 300, 350, 500];

export function Converter({ recipe, bar, units, asked, onAsk, made }: ConverterProps) {
  const [of, setOf] = useState<WhyOf | null>(null);
  const nowMs = useNow(60_000);
  const askWhy = (next: WhyOf) => setOf(next === of ? null : next);
  const fault = made.ok ? null : made.field;
  const textOf = (field: Lead): string => {
    if (asked.lead === field) return asked.text;
    if (!made.ok) return '';
    const { card, perCupG } = made;
    if (field === 'cup') return showVolume(perCupG[0]!, units).figure;
    if (field === 'dose') return showMass(card.doseG, units, 'dose').figure;
    return showMass(field === 'water' ? card.brewWaterG : card.drinkG, units, 'water').figure;
  };
  const input = (field: Lead, label: string, unit: string) => (
    <View style={{ flex: 1, minWidth: 76 }}>
      <Field
        label={`${label}, ${unit}`}
        says={WORDS.inIt(label, unit)}
        testID={`convert-${field}`}
        inputMode="decimal"
        size="figure"
        value={textOf(field)}
        fault={fault === field}
        onChangeText={(text) => onAsk({ lead: field, text })}
      />
      <WhyLink of={WHY_OF_FIELD[field]} name={label} asked={of} onPress={askWhy} disabled={!made.ok} />
    </View>
  );
  const several = asked.cups !== '1';
  return (
    <Card style={{ gap: 12 }} ruled={!made.ok}>
      {bar && bar.coffees.length > 1 ? (
        <Choice
          name={WORDS.coffee}
          value={made.coffee?.id ?? ''}
          onChange={(coffeeId) => onAsk({ coffeeId })}
          options={bar.coffees.map((coffee) => ({
            value: coffee.id,
            label: coffee.name,
            hint: coffeeHint(coffee, nowMs),
          }))}
        />
      ) : null}
      <Row style={{ alignItems: 'flex-start', flexWrap: 'wrap', marginBottom: -18 }}>
        {input('cup', several ? WORDS.eachCup : WORDS.cup, units.volume)}
        {input('dose', WORDS.dose, units.mass)}
        {input('water', WORDS.water, units.mass)}
        {asked.addition === 'milk' || asked.lead === 'drink' ? input('drink', WORDS.drink, units.mass) : null}
      </Row>
      <Row style={{ flexWrap: 'wrap', gap: 8 }}>
        {PRESETS_ML.map((ml) => (
          <Button
            key={ml}
            label={sizeText(ml, units)}
            says={WORDS.aCupOf(inWords(showVolume(ml, units)))}
            kind={asked.lead === 'cup' && asked.text === sizeText(ml, units) ? 'chosen' : 'plain'}
            onPress={() => onAsk({ lead: 'cup', text: sizeText(ml, units) })}
            style={{ flexGrow: 1, paddingHorizontal: 8 }}
          />
        ))}
      </Row>
      {made.ok ? (
        <Numbers
          recipe={recipe}
          bar={bar}
          units={units}
          asked={asked}
          made={made}
          onAsk={onAsk}
          of={of}
          onWhy={askWhy}
        />
      ) : null}
      {made.ok ? null : (
        <Text role="alert" bold>
          {made.reason}
        </Text>
      )}
      <Circumstances bar={bar} recipe={recipe} units={units} asked={asked} onAsk={onAsk} made={made} />
    </Card>
  );
}

const WHY_OF_FIELD: Record<Lead, WhyOf> = {
  cup: 'beverageG',
  dose: 'doseG',
  water: 'brewWaterG',
  drink: 'drinkG',
};

function WhyLink({
  of,
  name,
  asked,
  onPress,
  disabled,
}: {
  of: WhyOf;
  name: string;
  asked: WhyOf | null;
  onPress: (of: WhyOf) => void;
  disabled: boolean;
}) {
  const theme = useTheme();
  return (
    <Touch
      role="button"
      disabled={disabled}
      aria-label={WORDS.why(name)}
      onPress={() => onPress(of)}
      style={{ minHeight: TOUCH, paddingTop: 6 }}
    >
      <Text size="small" color={disabled ? theme.ink2 : theme.cool} bold={asked === of}>
        {WORDS.whyLabel}
      </Text>
    </Touch>
  );
}

function Numbers({
  recipe,
  bar,
  units,
  asked,
  made,
  onAsk,
  of,
  onWhy,
}: {
  recipe: Recipe;
  bar: Bar | null;
  units: Units;
  asked: ConverterInput;
  made: Conversion & { ok: true };
  onAsk: ConverterProps['onAsk'];
  of: WhyOf | null;
  onWhy: (of: WhyOf) => void;
}) {
  const theme = useTheme();
  const wide = useWindowDimensions().width >= 600;
  const { card, capacity, brewer, brewers, grinder, offsetSteps, grind } = made;
  const onBench = brewers.find((each) => each.brewer.id === brewer.id)?.onBench ?? false;
  const anyOnBench = brewers.some((each) => each.onBench);
  const derivation = of ? why(of, recipe, made.ask, made.place, { grinder, offsetSteps }) : null;
  return (
    <View style={{ gap: 10 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 8 }}>
        {factsOf(recipe, bar, units, made).map((fact) => (
          <Touch
            key={fact.name}
            role="button"
            disabled={!fact.of}
            aria-label={fact.of ? WORDS.whyForName(fact.name, fact.value) : `${fact.name} ${fact.value}`}
            onPress={() => fact.of && onWhy(fact.of)}
            style={{
              width: wide ? '23.5%' : '47.5%',
              minHeight: TOUCH,
              justifyContent: 'center',
              paddingVertical: 4,
              borderBottomWidth: 1,
              borderColor: fact.of && fact.of === of ? theme.cool : theme.rim,
            }}
          >
            <Text size="small" quiet>
              {fact.name}
              {fact.of ? (
                <Text size="small" color={theme.cool}>
                  {WORDS.whyLabel2}
                </Text>
              ) : null}
            </Text>
            <Text bold>{fact.value}</Text>
          </Touch>
        ))}
      </View>
      {derivation ? <WhyCard derivation={derivation} units={units} onClose={() => of && onWhy(of)} /> : null}
      {grind && !grind.ok ? <Text size="small">{grind.reason}</Text> : null}
      <Text size="small" quiet>
        {WORDS.grindOfHundred(
          bandInWords(card.grindBand),
          card.grindBand,
          onBench
            ? WORDS.inThe(brewer.name)
            : anyOnBench
              ? ` In the ${brewer.name}, which is not on this bench.`
              : WORDS.noSuchBrewer(brewer.name),
        )}
      </Text>
      {capacity.fit.fits ? null : (
        <View style={{ gap: 6 }}>
          <Text bold role="alert">
            {capacity.words}
          </Text>
          {capacity.waysOut.map((way) => (
            <Button
              key={wayOutInWords(way)}
              label={wayOutInWords(way)}
              onPress={() => onAsk(takeWayOut(way, asked, units))}
              style={{ justifyContent: 'flex-start' }}
            />
          ))}
        </View>
      )}
      {card.notes.map((note) => (
        <Text key={note} size="small">
          {note}
        </Text>
      ))}
      <Uncertain recipe={recipe} made={made} />
    </View>
  );
}

/** What is a usual value rather than this bar's own, and how far off it may be. */
function Uncertain({ recipe, made }: { recipe: Recipe; made: Conversion & { ok: true } }) {
  const found = uncertaintiesOf(recipe, made.card, made.place, made.grind?.ok ?? false);
  return (
    <View role="note" aria-label={WORDS.whatIsUncertain} testID="uncertain" style={{ gap: 2 }}>
      <Text size="small" bold>
        {WORDS.whatIsUncertain}
      </Text>
      {found.map(({ about, plusMinus, unit, why: reason }) => (
        <Text key={about} size="small" quiet>
          {WORDS.plusMinus(ABOUT[about], plusMinus, unit, reason)}
        </Text>
      ))}
    </View>
  );
}

const ABOUT: Record<Uncertainty['about'], string> = {
  beverage: WORDS.theCup,
  time: WORDS.theTime,
  grind: WORDS.theGrind,
  temperature: WORDS.theTemperature,
};

function takeWayOut(way: WayOut, asked: ConverterInput, units: Units): Partial<ConverterInput> {
  if (way.kind === 'other brewer') return { brewerId: way.brewer.id };
  const ml = way.kind === 'equal brews' ? way.eachMl : way.toMl;
  return {
    lead: 'cup',
    text: sizeText(ml, units),
    brewerId: way.brewer.id,
    cups: way.kind === 'equal brews' ? '1' : asked.cups,
  };
}
