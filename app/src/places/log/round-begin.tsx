/**
 * Beginning a blind tasting: which coffees, what of one coffee, or which recipes of it. Chance says which letter hides what.
 */
import { useState } from 'react';
import { View } from 'react-native';
import type { CupAsk, Trial } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { cardFor } from '@even-kettle/core/plan';
import {
  METHODS,
  PLAIN_FILTERS,
  ROAST_LEVELS,
  calibrationFault,
  type PlainFilter,
  type Recipe,
  type RecipeBook,
  type RoastLevel,
} from '@even-kettle/core/recipe';
import { newId, useBar } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { DIALS, STEPS, trialsOf, type Dial } from './trials';
import { WORDS } from './words';

const LETTERS = 'ABCDEFGH';
const MOST = 6;
/** What a sample is: small, as far as a brewer here can make it, millilitres. */
const SIZES_ML = [200, 250, 150, 300, 350, 120, 90, 75];

type Sampled = Trial & { coffee: string; roast: RoastLevel; recipe: Recipe };

export function BeginRound({ bar }: { bar: Bar }) {
  const { recipes, book } = useBar();
  const here = recipes.filter((recipe) => sizeFor(recipe, bar, book) !== null);
  const [what, setWhat] = useState<'coffees' | 'recipes' | Dial>('coffees');
  const [recipeId, setRecipeId] = useState(here[0]?.id ?? '');
  const recipe = here.find(({ id }) => id === recipeId) ?? here[0];
  if (!recipe) return <Text>{WORDS.noBrewerForRound}</Text>;
  return (
    <Card style={{ gap: 12 }}>
      <Subheading>{WORDS.beginOne}</Subheading>
      <Choice
        name={WORDS.whatIsCompared}
        value={what}
        onChange={setWhat}
        options={[
          { value: 'coffees', label: WORDS.coffeesCompared },
          ...DIALS.map((dial) => ({ value: dial, label: WORDS.dials[dial] })),
          { value: 'recipes', label: WORDS.recipesCompared },
        ]}
      />
      <Text quiet>
        {what === 'coffees'
          ? WORDS.oneRecipeHint
          : what === 'recipes'
            ? WORDS.recipesComparedHint
            : WORDS.oneThingIsChanged}
      </Text>
      {what === 'recipes' ? null : (
        <Select label={WORDS.recipe} value={recipe.id} onChange={setRecipeId} options={asOptions(here)} />
      )}
      {what === 'recipes' ? (
        <Recipes bar={bar} here={here} />
      ) : what === 'coffees' ? (
        <Coffees bar={bar} recipe={recipe} />
      ) : (
        <DialIn key={what} dial={what} bar={bar} recipe={recipe} />
      )}
      <Text size="small" quiet>
        {WORDS.neitherIsSold}
      </Text>
    </Card>
  );
}

const asOptions = (recipes: readonly Recipe[]) =>
  recipes.map(({ id, name, method }) => ({ value: id, label: `${METHODS[method].name}: ${name}` }));

const fits = ({ id, version }: Recipe, cupMl: number, bar: Bar, book: RecipeBook): boolean =>
  cardFor(bar, { cupId: '', recipeId: id, recipeVersion: version, coffee: '', roast: 'medium', cupMl }, book)
    .ok;

const sizeFor = (recipe: Recipe, bar: Bar, book: RecipeBook): number | null =>
  SIZES_ML.find((cupMl) => fits(recipe, cupMl, bar, book)) ?? null;

function useBegin(bar: Bar): (samples: readonly Sampled[], name: (letters: string) => string) => void {
  const act = useAct();
  const { book } = useBar();
  return (samples, name) => {
    // All alike, where a brewer for each makes such a cup.
    const alikeMl = SIZES_ML.find((ml) => samples.every(({ recipe }) => fits(recipe, ml, bar, book)));
    const sizeOf = (recipe: Recipe) => alikeMl ?? sizeFor(recipe, bar, book) ?? SIZES_ML[0]!;
    // Which letter hides what is chance's to say, on this device, now.
    const drawn = samples
      .map((sample) => ({ sample, draw: crypto.getRandomValues(new Uint32Array(1))[0]! }))
      .sort((a, b) => a.draw - b.draw)
      .map(({ sample }, index) => ({ ...sample, letter: LETTERS[index]! }));
    const [roundId, orderId] = [newId(), newId()];
    const letters = drawn.map(({ letter }) => letter).join(' ');
    act(
      [
        {
          type: 'round-begun',
          roundId,
          recipeId: samples[0]!.recipe.id,
          sampleOrderId: orderId,
          cups: drawn.map(({ roast: _roast, recipe: _recipe, ...cup }) => cup),
        },
        {
          type: 'order-taken',
          orderId,
          name: name(letters),
          cups: drawn.map(({ coffee, roast, letter, recipe, ...trial }): CupAsk => ({
            cupId: newId(),
            recipeId: recipe.id,
            recipeVersion: recipe.version,
            coffee,
            roast,
            cupMl: sizeOf(recipe),
            sample: { roundId, letter, ...trial },
          })),
        },
      ],
      WORDS.beginTheSampleRound,
    );
  };
}

type Props = { bar: Bar; recipe: Recipe };

/** Coffees of the bench, and such as are not on it. */
function Coffees({ bar, recipe }: Props) {
  const begin = useBegin(bar);
  const [chosen, setChosen] = useState<string[]>([]);
  const [others, setOthers] = useState<Omit<Sampled, 'recipe'>[]>([]);
  const [name, setName] = useState('');
  const [roast, setRoast] = useState<RoastLevel>('light');
  const many = chosen.length + others.length;
  const toggle = (id: string) =>
    setChosen(chosen.includes(id) ? chosen.filter((each) => each !== id) : [...chosen, id]);
  const known = [...bar.coffees.map((coffee) => coffee.name), ...others.map(({ coffee }) => coffee)];
  const canAdd = name.trim() !== '' && !known.includes(name.trim()) && many < MOST;
  const samples = [
    ...bar.coffees
      .filter(({ id }) => chosen.includes(id))
      .map((each) => ({ coffee: each.name, roast: each.roast })),
    ...others,
  ];
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {bar.coffees.map((coffee) => (
          <Button
            key={coffee.id}
            label={coffee.name}
            kind={chosen.includes(coffee.id) ? 'chosen' : 'plain'}
            disabled={!chosen.includes(coffee.id) && many >= MOST}
            onPress={() => toggle(coffee.id)}
          />
        ))}
        {others.map(({ coffee }) => (
          <Button
            key={coffee}
            label={coffee}
            says={WORDS.removeSample(coffee)}
            icon="close"
            kind="chosen"
            onPress={() => setOthers(others.filter((each) => each.coffee !== coffee))}
          />
        ))}
      </View>
      <Row style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
        <Field
          label={WORDS.coffeeFromElsewhere}
          value={name}
          maxLength={40}
          onChangeText={setName}
          style={{ flexGrow: 1, flexBasis: 180 }}
        />
        <Select
          label={WORDS.roast}
          value={roast}
          onChange={setRoast}
          options={ROAST_LEVELS.map((value) => ({ value, label: value }))}
          style={{ flexBasis: 120 }}
        />
        <Button
          icon="plus"
          label={WORDS.add}
          says={WORDS.addTheCoffee}
          disabled={!canAdd}
          onPress={() => {
            setOthers([...others, { coffee: name.trim(), roast }]);
            setName('');
          }}
        />
      </Row>
      <Button
        kind="main"
        label={many < 2 ? WORDS.chooseTwoCoffees : WORDS.beginWith(many)}
        disabled={many < 2}
        onPress={() =>
          begin(
            samples.map((sample) => ({ ...sample, recipe })),
            WORDS.sampleRoundForShuffled,
          )
        }
        testID="begin-round"
      />
    </>
  );
}

/** One coffee in two or three grinds, temperatures or ratios, the usual one among them. */
function DialIn({ dial, bar, recipe }: Props & { dial: Dial }) {
  const begin = useBegin(bar);
  const [coffeeId, setCoffeeId] = useState(bar.coffees[0]?.id ?? '');
  const [cups, setCups] = useState<'2' | '3'>('3');
  const [step, setStep] = useState(String(STEPS[dial][0]));
  const coffee = bar.coffees.find(({ id }) => id === coffeeId) ?? bar.coffees[0];
  if (!coffee) return <Text>{WORDS.noCoffeeForRound}</Text>;
  const [grinder] = bar.grinders;
  // A grinder that is set by feel would grind them all alike.
  if (dial === 'grind' && (!grinder || calibrationFault(grinder.points) !== null))
    return <Text>{WORDS.noSettingsForRound}</Text>;
  return (
    <>
      <Select
        label={WORDS.coffee}
        value={coffee.id}
        onChange={setCoffeeId}
        options={bar.coffees.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <Text size="small" quiet>
        {WORDS.howMany}
      </Text>
      <Row style={{ flexWrap: 'wrap' }}>
        <Choice
          name={WORDS.howMany}
          value={cups}
          onChange={setCups}
          options={[
            { value: '2', label: WORDS.twoCups, hint: WORDS.usualAndMore },
            { value: '3', label: WORDS.threeCups, hint: WORDS.lessUsualMore },
          ]}
        />
      </Row>
      <Text size="small" quiet>
        {WORDS.howFarApart}
      </Text>
      <Choice
        name={WORDS.howFarApart}
        value={step}
        onChange={setStep}
        options={STEPS[dial].map((value) => ({ value: String(value), label: WORDS.apart[dial](value) }))}
      />
      <Button
        kind="main"
        label={WORDS.beginWith(cups)}
        onPress={() =>
          begin(
            trialsOf(dial, cups === '2' ? 2 : 3, Number(step)).map((trial) => ({
              coffee: coffee.name,
              roast: coffee.roast,
              recipe,
              ...trial,
            })),
            WORDS.dialInFor,
          )
        }
        testID="begin-round"
      />
    </>
  );
}

/** What stands for a filter as the recipe has it. */
const AS_IT_IS = '';
type Way = { recipeId: string; filter: PlainFilter | typeof AS_IT_IS };
const WAYS_MOST = 3;

/** One coffee by two or three recipes, or through two filters. */
function Recipes({ bar, here }: { bar: Bar; here: readonly Recipe[] }) {
  const begin = useBegin(bar);
  const [coffeeId, setCoffeeId] = useState(bar.coffees[0]?.id ?? '');
  const [ways, setWays] = useState<Way[]>(() =>
    [here[0]!, here[1] ?? here[0]!].map(({ id }) => ({ recipeId: id, filter: AS_IT_IS })),
  );
  const coffee = bar.coffees.find(({ id }) => id === coffeeId) ?? bar.coffees[0];
  if (!coffee) return <Text>{WORDS.noCoffeeForRound}</Text>;
  const set = (index: number, part: Partial<Way>) => setWays(ways.with(index, { ...ways[index]!, ...part }));
  const differ = new Set(ways.map(({ recipeId, filter }) => `${recipeId} ${filter}`)).size === ways.length;
  const samples = ways.flatMap(({ recipeId, filter }): Sampled[] => {
    const recipe = here.find(({ id }) => id === recipeId);
    const { name, roast } = coffee;
    return recipe ? [{ coffee: name, roast, recipe, recipeId, ...(filter ? { filter } : {}) }] : [];
  });
  return (
    <>
      <Select
        label={WORDS.coffee}
        value={coffee.id}
        onChange={setCoffeeId}
        options={bar.coffees.map(({ id, name }) => ({ value: id, label: name }))}
      />
      {ways.map(({ recipeId, filter }, index) => (
        <Row key={index} style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
          <Select
            label={WORDS.recipeOf(index + 1)}
            value={recipeId}
            onChange={(chosen) => set(index, { recipeId: chosen, filter: AS_IT_IS })}
            options={asOptions(here)}
            style={{ flexGrow: 2, width: 220 }}
          />
          {isFiltered(here.find(({ id }) => id === recipeId)) ? (
            <Select
              label={WORDS.filterOf(index + 1)}
              value={filter}
              onChange={(chosen) => set(index, { filter: chosen })}
              options={[
                { value: AS_IT_IS, label: WORDS.asItIs },
                ...PLAIN_FILTERS.map((value) => ({ value, label: WORDS.filters[value] })),
              ]}
              style={{ flexGrow: 1, width: 120 }}
            />
          ) : null}
          {ways.length > 2 ? (
            <Button
              kind="bare"
              icon="close"
              label=""
              says={WORDS.removeForName(WORDS.recipeOf(index + 1))}
              onPress={() => setWays(ways.toSpliced(index, 1))}
            />
          ) : null}
        </Row>
      ))}
      {ways.length < WAYS_MOST ? (
        <Button
          icon="plus"
          label={WORDS.addRecipe}
          onPress={() => setWays([...ways, { recipeId: here[0]!.id, filter: AS_IT_IS }])}
        />
      ) : null}
      <Button
        kind="main"
        label={differ ? WORDS.beginWith(ways.length) : WORDS.chooseOtherRecipe}
        disabled={!differ}
        onPress={() => begin(samples, WORDS.tastingFor)}
        testID="begin-round"
      />
    </>
  );
}

/** Whether its water passes a filter that could be another one. */
const isFiltered = (recipe: Recipe | undefined): boolean =>
  recipe !== undefined && METHODS[recipe.method].drawdownExponent !== null;
