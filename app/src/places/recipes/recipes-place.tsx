/**
 * Recipes: the cards, and the converter. Cup, dose or water in; all else out.
 */
import { useState } from 'react';
import { Pressable, View, useWindowDimensions } from 'react-native';
import { router } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import {
  BREWERS,
  DEFAULT_PLACE,
  METHODS,
  RecipeError,
  brewCard,
  fitsBrewer,
  largestPourG,
  type Ask,
  type BrewCard,
  type Recipe,
} from '@even-kettle/core/recipe';
import {
  inWords,
  readMass,
  readVolume,
  showClock,
  showMass,
  showTemperature,
  showVolume,
  type Units,
} from '@even-kettle/core/units';
import { useBar, useHere, useUnits } from '../../bar/bar-context';
import { Field } from '../../ui/field';
import { useLook } from '../../ui/look';
import { Card, Loading, Notice, Page, Row, Tap } from '../../ui/parts';
import { Heading, Subheading, Text } from '../../ui/text';
import { RADIUS, WIDE } from '../../ui/theme';
import { Vessel } from '../../vessels/vessel';

export function RecipesPlace({ chosenId }: { chosenId: string | null }) {
  const { api } = useHere();
  const recipes = useQuery({ queryKey: ['recipes'], queryFn: api.recipes, staleTime: Infinity });
  const wide = useWindowDimensions().width >= WIDE;

  if (recipes.isPending) {
    return (
      <Page>
        <Loading what="the recipes" height={240} />
      </Page>
    );
  }
  if (recipes.isError) {
    return (
      <Page>
        <Notice
          ruled
          title="The recipes did not come"
          action={<Tap label="Try again" onPress={() => void recipes.refetch()} />}
        >
          The server could not be asked for them just now.
        </Notice>
      </Page>
    );
  }
  const all = recipes.data.recipes;
  const chosen = all.find(({ id }) => id === chosenId);
  if (chosenId !== null && !chosen) {
    return (
      <Page>
        <Notice
          ruled
          title="No such recipe"
          action={<Tap label="All recipes" onPress={() => router.replace('/recipes')} />}
        >
          There is no recipe called “{chosenId.slice(0, 40)}” on this bar.
        </Notice>
      </Page>
    );
  }
  const shown = chosen ?? (wide ? all[0] : undefined);
  const list = <RecipeCards recipes={all} chosenId={shown?.id ?? null} />;
  if (!wide) return <Page>{chosen ? <Converter key={chosen.id} recipe={chosen} back /> : list}</Page>;
  return (
    <Page wide>
      <View style={{ flexDirection: 'row', gap: 16, alignItems: 'flex-start' }}>
        <View style={{ flex: 4 }}>{list}</View>
        <View style={{ flex: 7 }}>{shown ? <Converter key={shown.id} recipe={shown} /> : null}</View>
      </View>
    </Page>
  );
}

function RecipeCards({ recipes, chosenId }: { recipes: Recipe[]; chosenId: string | null }) {
  const look = useLook();
  const units = useUnits();
  return (
    <View style={{ gap: 10 }}>
      <Heading>Recipes</Heading>
      {recipes.map((recipe) => {
        const method = METHODS[recipe.method];
        return (
          <Pressable
            key={recipe.id}
            role="link"
            aria-label={`${method.name}: ${recipe.name}`}
            onPress={() => router.push({ pathname: '/recipes/[id]', params: { id: recipe.id } })}
            style={({ pressed }) => ({
              flexDirection: 'row',
              gap: 12,
              padding: 12,
              borderRadius: RADIUS,
              borderWidth: 1,
              alignItems: 'center',
              borderColor: recipe.id === chosenId ? look.ink : look.rim,
              backgroundColor: pressed ? look.coolPale : look.surface,
            })}
          >
            <Vessel method={recipe.method} level={0.55} target={null} size={64} />
            <View style={{ flex: 1, gap: 2 }}>
              <Text size="small" quiet>
                {method.name} · {method.character}
              </Text>
              <Text bold>{recipe.name}</Text>
              <Text size="small">{recipe.why}</Text>
              <Text size="small" quiet>
                1:{recipe.ratio} · {inWords(showTemperature(recipe.waterC, units))} ·{' '}
                {showClock(recipe.endWindowS.from)}–{showClock(recipe.endWindowS.to)}
              </Text>
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

type Lead = 'cup' | 'dose' | 'water';

function Converter({ recipe, back }: { recipe: Recipe; back?: boolean }) {
  const units = useUnits();
  const { bar } = useBar();
  const [lead, setLead] = useState<{ field: Lead; text: string }>({
    field: 'cup',
    text: inUnit('cup', 250, units),
  });
  const ask = readAsk(lead, units);
  const place = { ...DEFAULT_PLACE, ...(bar ? { altitudeM: bar.altitudeM, kettle: bar.kettle } : {}) };
  const made = ask.ok ? convert(recipe, ask.ask, place) : ask;
  const card = made.ok ? made.card : null;
  const textOf = (field: Lead): string =>
    lead.field === field
      ? lead.text
      : card
        ? inUnit(field, { cup: card.beverageG, dose: card.doseG, water: card.brewWaterG }[field], units)
        : '';
  const input = (field: Lead, label: string, unit: string) => (
    <Field
      label={`${label}, ${unit}`}
      says={`${label} in ${unit}`}
      testID={`convert-${field}`}
      inputMode="decimal"
      size="figure"
      value={textOf(field)}
      fault={lead.field === field && !made.ok}
      onChangeText={(text) => setLead({ field, text })}
      style={{ flex: 1 }}
    />
  );
  return (
    <View style={{ gap: 12 }}>
      <Row style={{ justifyContent: 'space-between', alignItems: 'flex-start' }}>
        <View style={{ flex: 1 }}>
          <Text size="small" quiet>
            {METHODS[recipe.method].name}
          </Text>
          {back ? (
            <Heading>{recipe.name}</Heading>
          ) : (
            <Subheading style={{ fontSize: 18, lineHeight: 24 }}>{recipe.name}</Subheading>
          )}
        </View>
        {back ? <Tap kind="bare" label="All recipes" onPress={() => router.replace('/recipes')} /> : null}
      </Row>
      <Card style={{ gap: 12 }} ruled={!made.ok}>
        <Row style={{ alignItems: 'flex-start' }}>
          {input('cup', 'Cup', units.volume)}
          {input('dose', 'Dose', units.mass)}
          {input('water', 'Water', units.mass)}
        </Row>
        {made.ok ? (
          <Numbers card={made.card} units={units} />
        ) : (
          <Text role="alert" bold>
            {made.reason}
          </Text>
        )}
      </Card>
      {card ? <StepTable card={card} units={units} /> : null}
      {recipe.cautions.map((caution) => (
        <Text key={caution} size="small" quiet>
          {caution}
        </Text>
      ))}
    </View>
  );
}

function Numbers({ card, units }: { card: BrewCard; units: Units }) {
  const brewers = BREWERS.filter(
    (brewer) =>
      brewer.method === card.method && fitsBrewer(brewer, { ...card, largestPourG: largestPourG(card) }),
  );
  const facts: [string, string][] = [
    ['Ratio', `1:${card.ratio.toFixed(1)}`],
    ['Water at', inWords(showTemperature(card.waterC, units))],
    ['Grind band', `${card.grindBand} of 100`],
    ['Fill the kettle', inWords(showMass(card.kettleFillG, units, 'water'))],
    [
      'Time',
      `${showClock(card.brewTimeS)} (${showClock(card.brewWindowS.from)}–${showClock(card.brewWindowS.to)})`,
    ],
    ['Fits', brewers.length > 0 ? brewers.map(({ name }) => name).join(', ') : 'no brewer in one go'],
  ];
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', rowGap: 10 }}>
        {facts.map(([name, value]) => (
          <View key={name} style={{ width: '50%', paddingRight: 8 }}>
            <Text size="small" quiet>
              {name}
            </Text>
            <Text bold>{value}</Text>
          </View>
        ))}
      </View>
      {card.notes.map((note) => (
        <Text key={note} size="small">
          {note}
        </Text>
      ))}
    </View>
  );
}

/** The brew on its timer: what to do when, and what the scale then reads. */
function StepTable({ card, units }: { card: BrewCard; units: Units }) {
  const look = useLook();
  return (
    <Card style={{ gap: 0, paddingVertical: 6 }}>
      {card.steps.map((step, index) => (
        <View
          key={step.id}
          style={{
            flexDirection: 'row',
            gap: 10,
            paddingVertical: 7,
            borderTopWidth: index === 0 ? 0 : 1,
            borderColor: look.rim,
          }}
        >
          <Text bold quiet={step.phase !== 'brew'} style={{ width: 52, textAlign: 'right' }}>
            {showClock(step.startS)}
          </Text>
          <View style={{ flex: 1 }}>
            <Text quiet={!step.attended}>{step.name}</Text>
            {step.end === 'cue' && step.phase === 'brew' ? (
              <Text size="small" quiet>
                until “{step.cue}”
              </Text>
            ) : null}
          </View>
          <Text bold>
            {step.targetG === undefined ? '' : inWords(showMass(step.targetG, units, 'water'))}
          </Text>
        </View>
      ))}
    </Card>
  );
}

function readAsk(
  { field, text }: { field: Lead; text: string },
  units: Units,
): { ok: true; ask: Ask } | { ok: false; reason: string } {
  const any = { min: 0, max: 1e6 };
  if (field === 'cup') {
    const read = readVolume(text, 'Cup', units, any);
    return read.ok ? { ok: true, ask: { cupMl: read.value } } : read;
  }
  const read = readMass(text, field === 'dose' ? 'Dose' : 'Water', units, any);
  if (!read.ok) return read;
  return { ok: true, ask: field === 'dose' ? { doseG: read.value } : { brewWaterG: read.value } };
}

function convert(
  recipe: Recipe,
  ask: Ask,
  place: Parameters<typeof brewCard>[2],
): { ok: true; card: BrewCard } | { ok: false; reason: string } {
  try {
    return { ok: true, card: brewCard(recipe, ask, place) };
  } catch (error) {
    if (error instanceof RecipeError) return { ok: false, reason: error.message };
    throw error;
  }
}

/** A figure as it would be typed in the bar's unit. */
function inUnit(field: Lead, value: number, units: Units): string {
  if (field === 'cup') return showVolume(value, units).figure;
  return showMass(value, units, field === 'dose' ? 'dose' : 'water').figure;
}
