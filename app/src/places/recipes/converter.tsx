/**
 * The converter: any field can lead, the rest follow as one types; any number can be asked why.
 */
import { useState } from 'react';
import { Pressable, View, useWindowDimensions } from 'react-native';
import {
  ADDITIONS,
  ROAST_LEVELS,
  bandInWords,
  wayOutInWords,
  why,
  type Recipe,
  type WayOut,
  type WhyOf,
} from '@even-kettle/core/recipe';
import {
  ML_PER_FL_OZ,
  inWords,
  showClock,
  showMass,
  showTemperature,
  showVolume,
  type Units,
} from '@even-kettle/core/units';
import { blendFor, boilingPointC, coolingTimeS } from '@even-kettle/core/water';
import type { Bar } from '@even-kettle/core/contract';
import { Field } from '../../ui/field';
import { Select } from '../../ui/select';
import { useLook } from '../../ui/look';
import { Card, Choice, Row, Tap } from '../../ui/parts';
import { Text } from '../../ui/text';
import { TOUCH } from '../../ui/theme';
import type { Asked, Lead } from './asked';
import type { Conversion } from './conversion';
import { WhyCard } from './why-card';

/** Where the bar has not said how warm it is, degrees Celsius. */
const USUAL_ROOM_C = 21;
const PRESETS_ML = [200, 250, 300, 350, 500];

type Props = {
  recipe: Recipe;
  bar: Bar | null;
  units: Units;
  asked: Asked;
  onAsk: (part: Partial<Asked>) => void;
  made: Conversion;
};

export function Converter({ recipe, bar, units, asked, onAsk, made }: Props) {
  const [of, setOf] = useState<WhyOf | null>(null);
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
        says={`${label} in ${unit}`}
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
          name="Coffee"
          value={made.coffee?.id ?? ''}
          onChange={(coffeeId) => onAsk({ coffeeId })}
          options={bar.coffees.map(({ id, name, roast, decaf }) => ({
            value: id,
            label: name,
            hint: decaf ? `decaf, ${roast}` : roast,
          }))}
        />
      ) : null}
      <Row style={{ alignItems: 'flex-start', flexWrap: 'wrap', marginBottom: -10 }}>
        {input('cup', several ? 'Each cup' : 'Cup', units.volume)}
        {input('dose', 'Dose', units.mass)}
        {input('water', 'Water', units.mass)}
        {asked.addition === 'milk' || asked.lead === 'drink' ? input('drink', 'Drink', units.mass) : null}
      </Row>
      <Row style={{ flexWrap: 'wrap', gap: 8 }}>
        {PRESETS_ML.map((ml) => (
          <Tap
            key={ml}
            label={cupText(ml, units)}
            says={`A cup of ${inWords(showVolume(ml, units))}`}
            kind={asked.lead === 'cup' && asked.text === cupText(ml, units) ? 'chosen' : 'plain'}
            onPress={() => onAsk({ lead: 'cup', text: cupText(ml, units) })}
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
      <Around bar={bar} recipe={recipe} units={units} asked={asked} onAsk={onAsk} made={made} />
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
  const look = useLook();
  return (
    <Pressable
      role="button"
      disabled={disabled}
      aria-label={`${name}, why?`}
      onPress={() => onPress(of)}
      style={{ minHeight: TOUCH, paddingTop: 6 }}
    >
      <Text size="small" color={disabled ? look.ink2 : look.cool} bold={asked === of}>
        why?
      </Text>
    </Pressable>
  );
}

type Fact = { name: string; value: string; of?: WhyOf; alarm?: boolean };

function factsOf(recipe: Recipe, bar: Bar | null, units: Units, made: Conversion & { ok: true }): Fact[] {
  const { card, grind, grinder, beansG, perCupG } = made;
  const mass = (g: number) => inWords(showMass(g, units, 'water'));
  const facts: Fact[] = [
    { name: 'Ratio', value: `1:${card.ratio.toFixed(1)}`, of: 'ratio' },
    {
      name: card.waterIs === 'in the kettle' ? 'Water at' : `Water ${card.waterIs}`,
      value: inWords(showTemperature(card.waterC, units, !Number.isInteger(card.waterC))),
      of: 'waterC',
    },
    grind?.ok
      ? { name: grinder!.name, value: `${grind.setting}`, of: 'grindSetting' }
      : { name: 'Grind', value: `${card.grindBand} of 100` },
    { name: 'Beans to weigh', value: inWords(showMass(beansG, units, 'dose')) },
    {
      name: 'Time',
      value: `${showClock(card.brewTimeS)}  (${showClock(card.brewWindowS.from)}–${showClock(card.brewWindowS.to)})`,
      of: 'brewTimeS',
    },
    { name: 'Hands', value: showClock(card.handsTimeS), of: 'handsTimeS' },
    { name: 'Hot water ready', value: mass(card.kettleFillG), of: 'kettleFillG' },
  ];
  const boilingC = boilingPointC(made.place.altitudeM);
  const roomC = bar?.roomC ?? USUAL_ROOM_C;
  const perMin = bar?.kettles[0]?.coolingPerMin;
  if (card.waterIs === 'in the kettle' && card.waterC < boilingC - 1) {
    const { hotG } = blendFor(card.brewWaterG, card.waterC, { hotC: boilingC, coldC: roomC });
    facts.push(
      {
        name: 'Off the boil, wait',
        value: showClock(
          coolingTimeS({ fromC: boilingC, roomC, ...(perMin ? { perMin } : {}) }, card.waterC),
        ),
      },
      {
        name: 'Or boiling and cool',
        value: `${showMass(hotG, units, 'water').figure} + ${mass(card.brewWaterG - Math.round(hotG))}`,
      },
    );
  }
  if (card.bypassG > 0) {
    facts.push(
      {
        name: card.addition === 'ice' ? 'Bypass, with ice' : 'Bypass',
        value: mass(card.bypassG),
        of: 'bypassG',
      },
      { name: 'Final ratio', value: `1:${card.finalRatio.toFixed(1)}`, of: 'finalRatio' },
    );
  }
  if (card.mixedC !== undefined)
    facts.push({
      name: 'Both waters mixed',
      value: inWords(showTemperature(card.mixedC, units, true)),
      of: 'mixedC',
    });
  if (card.addition === 'milk')
    facts.push({ name: 'Drink, with milk', value: mass(card.drinkG), of: 'drinkG' });
  if (perCupG.length > 1)
    facts.push({
      name: 'Shared out',
      value: perCupG.map((g) => showMass(g, units, 'water').figure).join(' + '),
    });
  if (recipe.bed !== 'none') facts.push({ name: 'Bed', value: recipe.bed });
  return facts;
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
  asked: Asked;
  made: Conversion & { ok: true };
  onAsk: Props['onAsk'];
  of: WhyOf | null;
  onWhy: (of: WhyOf) => void;
}) {
  const look = useLook();
  const wide = useWindowDimensions().width >= 600;
  const { card, capacity, brewer, brewers, grinder, offsetSteps, grind } = made;
  const onBench = brewers.find((each) => each.brewer.id === brewer.id)?.onBench ?? false;
  const anyOnBench = brewers.some((each) => each.onBench);
  const derivation = of ? why(of, recipe, made.ask, made.place, { grinder, offsetSteps }) : null;
  return (
    <View style={{ gap: 10 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 8 }}>
        {factsOf(recipe, bar, units, made).map((fact) => (
          <Pressable
            key={fact.name}
            role="button"
            disabled={!fact.of}
            aria-label={fact.of ? `${fact.name} ${fact.value}, why?` : `${fact.name} ${fact.value}`}
            onPress={() => fact.of && onWhy(fact.of)}
            style={{
              width: wide ? '23.5%' : '47.5%',
              minHeight: TOUCH,
              justifyContent: 'center',
              paddingVertical: 4,
              borderBottomWidth: 1,
              borderColor: fact.of && fact.of === of ? look.cool : look.rim,
            }}
          >
            <Text size="small" quiet>
              {fact.name}
              {fact.of ? (
                <Text size="small" color={look.cool}>
                  {'  why?'}
                </Text>
              ) : null}
            </Text>
            <Text bold>{fact.value}</Text>
          </Pressable>
        ))}
      </View>
      {derivation ? <WhyCard derivation={derivation} units={units} onClose={() => of && onWhy(of)} /> : null}
      {grind && !grind.ok ? <Text size="small">{grind.reason}</Text> : null}
      <Text size="small" quiet>
        Grind {bandInWords(card.grindBand)} ({card.grindBand} of 100).
        {onBench
          ? ` In the ${brewer.name}.`
          : anyOnBench
            ? ` In the ${brewer.name}, which is not on this bench.`
            : ` No brewer of this kind is on this bench; worked out for the ${brewer.name}.`}
      </Text>
      {capacity.fit.fits ? null : (
        <View style={{ gap: 6 }}>
          <Text bold role="alert">
            {capacity.words}
          </Text>
          {capacity.waysOut.map((way) => (
            <Tap
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
    </View>
  );
}

function takeWayOut(way: WayOut, asked: Asked, units: Units): Partial<Asked> {
  if (way.kind === 'other brewer') return { brewerId: way.brewer.id };
  const ml = way.kind === 'equal brews' ? way.eachMl : way.toMl;
  return {
    lead: 'cup',
    text: cupText(ml, units),
    brewerId: way.brewer.id,
    cups: way.kind === 'equal brews' ? '1' : asked.cups,
  };
}

/** What surrounds the cup: taken from the Bench, changeable here. */
function Around({ bar, recipe, units, asked, onAsk, made }: Props) {
  const [open, setOpen] = useState(false);
  const altitudeM = made.place.altitudeM;
  const line = [
    `${altitudeM} m`,
    made.grinder?.name,
    asked.cups === '1' ? '1 cup' : `${asked.cups} cups`,
    `1:${asked.ratio || recipe.ratio}`,
    asked.roast,
    asked.addition === 'nothing' ? null : asked.addition,
  ].filter(Boolean);
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text size="small" quiet style={{ flex: 1 }}>
          {line.join(' · ')}
        </Text>
        <Tap
          kind="bare"
          label={open ? 'Less' : 'Change'}
          says={open ? 'Fewer settings' : 'Change altitude, brewer, grinder, ratio, cups or additions'}
          onPress={() => setOpen(!open)}
        />
      </Row>
      {open ? (
        <View style={{ gap: 12 }}>
          <Row style={{ alignItems: 'flex-start' }}>
            <Field
              label="Altitude, m"
              says="Altitude in metres"
              inputMode="numeric"
              value={asked.altitude ?? String(bar?.altitudeM ?? 0)}
              fault={!made.ok && made.field === 'altitude'}
              onChangeText={(altitude) => onAsk({ altitude })}
              testID="convert-altitude"
              style={{ flex: 1 }}
            />
            <Field
              label="Ratio, 1 to"
              says="Ratio, one to"
              inputMode="decimal"
              value={asked.ratio ?? String(recipe.ratio)}
              fault={!made.ok && made.field === 'ratio'}
              onChangeText={(ratio) => onAsk({ ratio: ratio === String(recipe.ratio) ? null : ratio })}
              testID="convert-ratio"
              style={{ flex: 1 }}
            />
            <Field
              label="Cups"
              inputMode="numeric"
              value={asked.cups}
              fault={!made.ok && made.field === 'cups'}
              onChangeText={(cups) => onAsk({ cups })}
              testID="convert-cups"
              style={{ flex: 1 }}
            />
          </Row>
          <Select
            label="Roast"
            value={asked.roast ?? 'coffee'}
            onChange={(roast) => onAsk({ roast: roast === 'coffee' ? null : roast })}
            options={[
              { value: 'coffee' as const, label: `the coffee’s: ${made.coffee?.roast ?? 'medium'}` },
              ...ROAST_LEVELS.map((value) => ({ value, label: value })),
            ]}
          />
          <Choice
            name="Brewer"
            value={made.ok ? made.brewer.id : ''}
            onChange={(brewerId) => onAsk({ brewerId })}
            options={made.brewers.map(({ brewer, onBench }) => ({
              value: brewer.id,
              label: brewer.name,
              hint: `${brewer.minDoseG}–${brewer.maxDoseG} g${onBench ? '' : ', not here'}`,
            }))}
          />
          {bar && bar.grinders.length > 1 ? (
            <Choice
              name="Grinder"
              value={made.grinder?.id ?? ''}
              onChange={(grinderId) => onAsk({ grinderId })}
              options={bar.grinders.map(({ id, name }) => ({ value: id, label: name }))}
            />
          ) : null}
          <Choice
            name="Added"
            value={asked.addition}
            onChange={(addition) => onAsk({ addition })}
            options={(['nothing', ...ADDITIONS] as const).map((value) => ({
              value,
              label: value === 'nothing' ? 'nothing added' : value,
            }))}
          />
          {units.volume === 'fl oz' ? (
            <Text size="small" quiet>
              Ratios are by mass.
            </Text>
          ) : null}
        </View>
      ) : null}
    </View>
  );
}

/** A cup's size as it would be typed. */
export const cupText = (ml: number, units: Units): string =>
  units.volume === 'fl oz' ? (ml / ML_PER_FL_OZ).toFixed(1) : String(ml);
