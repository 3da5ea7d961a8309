/**
 * Browsing: by brewer, or by what the guest wants.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { Link } from '../../ui/link';
import { Touch } from '../../ui/touch';
import { router } from 'expo-router';
import {
  DEFAULT_PLACE,
  METHODS,
  METHOD_IDS,
  WISHES,
  suggest,
  type Brewer,
  type MethodId,
  type BrewSite,
  type Recipe,
  type Wish,
} from '@even-kettle/core/recipe';
import { inWords, showClock, showTemperature } from '@even-kettle/core/units';
import { brewersOn, placeOf } from '@even-kettle/core/plan';
import { useBar, useUnits } from '../../client/bar-context';
import { useMay } from '../../client/may';
import { RadioGroup, tabStop } from '../../ui/by-keys';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Heading, Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { Vessel } from '../../vessels/vessel';
import { WORDS } from './words';

type Shown = { recipe: Recipe; reasons: string[] };

export function RecipeList({ recipes, chosenId }: { recipes: readonly Recipe[]; chosenId: string | null }) {
  const { bar } = useBar();
  const [method, setMethod] = useState<MethodId | null>(null);
  const [wish, setWish] = useState<Wish | 'any'>('any');
  const here = bar ? brewersOn(bar) : [];
  const place: BrewSite = bar ? placeOf(bar, bar.coffees[0]?.roast ?? 'medium') : DEFAULT_PLACE;
  const may = useMay();
  const shown = chooseShown(recipes, method, wish, place, here);
  return (
    <View style={{ gap: 12 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading style={{ flex: 1 }}>{WORDS.recipes}</Heading>
        {may('saveRecipe') ? (
          <>
            <Button icon="plus" label={WORDS.newRecipe} onPress={() => router.push('/recipes/new')} />
            <Button
              kind="bare"
              label={WORDS.importIt}
              says={WORDS.importHint}
              onPress={() => router.push('/recipes/import')}
            />
          </>
        ) : null}
      </Row>
      <MethodTiles recipes={recipes} here={here} value={method} onChange={setMethod} />
      <Choice
        name={WORDS.whatTheGuestWants}
        value={wish}
        onChange={setWish}
        options={(['any', ...WISHES] as const).map((value) => ({
          value,
          label: value === 'any' ? WORDS.anyTaste : value,
        }))}
      />
      {shown.length === 0 ? <Text quiet>{WORDS.noRecipeFound}</Text> : null}
      {shown.map(({ recipe, reasons }) => (
        <RecipeRow key={recipe.id} recipe={recipe} reasons={reasons} chosen={recipe.id === chosenId} />
      ))}
    </View>
  );
}

function chooseShown(
  recipes: readonly Recipe[],
  method: MethodId | null,
  wish: Wish | 'any',
  place: BrewSite,
  here: readonly Brewer[],
): Shown[] {
  const ofMethod = recipes.filter((recipe) => method === null || recipe.method === method);
  if (wish !== 'any') {
    const cup = { cupMl: wish === 'to share' ? 600 : 250 };
    return suggest(wish, ofMethod, cup, place).map(({ row, reasons }) => ({ recipe: row.recipe, reasons }));
  }
  // What can be brewed here comes first.
  const onBench = (recipe: Recipe) => here.some((brewer) => brewer.method === recipe.method);
  return [...ofMethod.filter(onBench), ...ofMethod.filter((recipe) => !onBench(recipe))].map((recipe) => ({
    recipe,
    reasons: [],
  }));
}

function MethodTiles({
  recipes,
  here,
  value,
  onChange,
}: {
  recipes: readonly Recipe[];
  here: readonly Brewer[];
  value: MethodId | null;
  onChange: (method: MethodId | null) => void;
}) {
  const theme = useTheme();
  return (
    <RadioGroup name={WORDS.brewer} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
      {METHOD_IDS.filter((id) => recipes.some(({ method }) => method === id)).map((id, index) => {
        const chosen = id === value;
        const onBench = here.some(({ method }) => method === id);
        return (
          <Touch
            key={id}
            role="radio"
            aria-checked={chosen}
            aria-label={`${METHODS[id].name}, ${METHODS[id].character}${onBench ? '' : WORDS.notOnBenchLabel}`}
            onPress={() => onChange(chosen ? null : id)}
            tabIndex={tabStop(chosen, value !== null, index)}
            style={{
              width: '17.8%',
              alignItems: 'center',
              paddingVertical: 6,
              gap: 2,
              borderRadius: RADIUS,
              borderWidth: chosen ? 2 : 1,
              margin: chosen ? 0 : 1,
              borderColor: chosen ? theme.ink : theme.rim,
              backgroundColor: chosen ? theme.coolPale : theme.surface,
            }}
          >
            <Vessel method={id} level={0.5} target={null} size={40} />
            <Text
              size="small"
              bold={chosen}
              quiet={!onBench}
              style={{ textAlign: 'center', fontSize: 12, lineHeight: 15 }}
            >
              {METHODS[id].name}
            </Text>
          </Touch>
        );
      })}
    </RadioGroup>
  );
}

function RecipeRow({ recipe, reasons, chosen }: { recipe: Recipe; reasons: string[]; chosen: boolean }) {
  const theme = useTheme();
  const units = useUnits();
  const method = METHODS[recipe.method];
  return (
    <Link
      href={`/recipes/${recipe.id}`}
      aria-label={`${method.name}: ${recipe.name}`}
      style={({ pressed }) => ({
        flexDirection: 'row',
        gap: 12,
        padding: 12,
        borderRadius: RADIUS,
        borderWidth: 1,
        alignItems: 'center',
        borderColor: chosen ? theme.ink : theme.rim,
        backgroundColor: pressed ? theme.coolPale : theme.surface,
      })}
    >
      <Vessel method={recipe.method} level={0.5} target={null} size={56} />
      <View style={{ flex: 1, gap: 2 }}>
        <Text size="small" quiet>
          {method.name} · 1:{recipe.ratio} · {inWords(showTemperature(recipe.waterC, units))} ·{' '}
          {showClock(recipe.endWindowS.from)}–{showClock(recipe.endWindowS.to)}
          {recipe.version > 1 ? WORDS.version(recipe.version) : ''}
        </Text>
        <Text bold>{recipe.name}</Text>
        <Text size="small">{reasons.length > 0 ? reasons.map(withoutStop).join('; ') : recipe.why}</Text>
      </View>
    </Link>
  );
}

const withoutStop = (text: string): string => text.replace(/\.$/, '');
