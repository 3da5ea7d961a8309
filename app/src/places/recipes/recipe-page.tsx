/**
 * One recipe: its converter, its pour line, its steps, and what else can be done with it.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { METHODS, why, type BrewCard, type Recipe, type WhyOf } from '@even-kettle/core/recipe';
import { brewersOn } from '@even-kettle/core/plan';
import { useBar, useHere, useUnits } from '../../client/bar-context';
import { useMay } from '../../client/may';
import { changesInWords } from '../../words/change-words';
import { saveFile } from '../../ui/files';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { useConverterInput } from './asked';
import { convert } from './conversion';
import { writtenInWords } from './facts';
import { Converter } from './converter';
import { sizeText } from '../../words/size-text';
import { loadSchemas } from '../../client/load-schemas';
import { MethodTable } from './method-table';
import { PourChart } from './pour-chart';
import { AroundSteps, BrewSteps } from './steps';
import { WhyCard } from './why-card';
import { WORDS } from './words';

export function RecipePage({ recipe, back }: { recipe: Recipe; back?: boolean }) {
  const units = useUnits();
  const { bar, recipes } = useBar();
  const [asked, onAsk] = useConverterInput(recipe.id, `${units.mass} ${units.volume}`, sizeText(250, units));
  const [of, setOf] = useState<WhyOf | null>(null);
  const { clock } = useHere();
  const made = convert(recipe, asked, bar, units, clock.nowMs());
  const method = METHODS[recipe.method];
  // What is changed for the coffee that is chosen is in every figure below.
  const changes = bar ? changesInWords(made.coffee?.recipeChanges?.[recipe.id] ?? {}, bar) : '';
  const derivation = of && made.ok ? why(of, recipe, made.ask, made.place) : null;
  return (
    <View style={{ gap: 12 }}>
      <Row style={{ justifyContent: 'space-between', alignItems: 'flex-start' }}>
        <View style={{ flex: 1 }}>
          <Text size="small" quiet>
            {method.name} · {method.character}
            {recipe.version > 1 ? WORDS.version(recipe.version) : ''}
          </Text>
          {back ? (
            <Heading>{recipe.name}</Heading>
          ) : (
            <Subheading style={{ fontSize: 18, lineHeight: 24 }}>{recipe.name}</Subheading>
          )}
          <Text size="small">{[recipe.why, ...writtenInWords(recipe, units)].join(' ')}</Text>
          {changes ? (
            <Text size="small" bold testID="for-coffee">
              {WORDS.forIt(made.coffee?.name ?? '', changes)}
            </Text>
          ) : null}
        </View>
        {back ? (
          <Button kind="bare" label={WORDS.allRecipes} onPress={() => router.replace('/recipes')} />
        ) : null}
      </Row>
      <Converter recipe={recipe} bar={bar} units={units} asked={asked} onAsk={onAsk} made={made} />
      {made.ok ? (
        <>
          <Card style={{ gap: 8 }}>
            <Subheading>{WORDS.pourLine}</Subheading>
            <PourChart card={made.card} units={units} />
          </Card>
          <BrewSteps
            card={made.card}
            units={units}
            onWhy={(target) => setOf(target === of ? null : target)}
          />
          {derivation ? (
            <Card>
              <WhyCard derivation={derivation} units={units} onClose={() => setOf(null)} />
            </Card>
          ) : null}
          <AroundSteps card={made.card} units={units} phases={['prep', 'finish', 'clean']} />
          <MethodTable
            recipes={recipes}
            chosen={recipe}
            made={made}
            benchBrewers={bar ? brewersOn(bar) : []}
            units={units}
          />
        </>
      ) : null}
      <Card>
        <Subheading>{WORDS.cautions}</Subheading>
        {recipe.cautions.map((caution) => (
          <Text key={caution} size="small">
            {caution}
          </Text>
        ))}
        {recipe.otherwise ? (
          <Text size="small" quiet>
            {recipe.otherwise}
          </Text>
        ) : null}
      </Card>
      <Card>
        <Subheading>{WORDS.thisRecipe}</Subheading>
        <Row style={{ flexWrap: 'wrap', gap: 8 }}>
          <Button
            label={WORDS.showMe}
            says={WORDS.showWholeMethod}
            onPress={() => router.push({ pathname: '/recipes/[id]/show', params: { id: recipe.id } })}
          />
          <ChangeButtons id={recipe.id} />
          <Button
            label={WORDS.versions}
            onPress={() => router.push({ pathname: '/recipes/[id]/versions', params: { id: recipe.id } })}
          />
          <Button
            label={WORDS.print}
            onPress={() => router.push({ pathname: '/recipes/[id]/print', params: { id: recipe.id } })}
          />
          <Button
            label={WORDS.share}
            says={WORDS.shareAsCode}
            onPress={() => router.push({ pathname: '/recipes/[id]/share', params: { id: recipe.id } })}
          />
          <Button
            label={WORDS.file}
            says={WORDS.saveAsRecipeFile}
            onPress={() => void saveRecipeFile(recipe)}
          />
          <Button
            label={WORDS.stepTable}
            says={WORDS.saveStepsCsv}
            disabled={!made.ok}
            onPress={() => made.ok && void saveStepTable(made.card)}
          />
        </Row>
      </Card>
    </View>
  );
}

/** For those that may change the bar's recipes. */
function ChangeButtons({ id }: { id: string }) {
  const may = useMay();
  if (!may('saveRecipe')) return null;
  return (
    <>
      <Button
        label={WORDS.changeIt}
        onPress={() => router.push({ pathname: '/recipes/[id]/edit', params: { id } })}
      />
      <Button
        label={WORDS.copyIt}
        onPress={() => router.push({ pathname: '/recipes/[id]/edit', params: { id, copy: 'yes' } })}
      />
    </>
  );
}

async function saveRecipeFile(recipe: Recipe): Promise<void> {
  const { writeRecipes } = await loadSchemas();
  saveFile(`${recipe.id}.json`, writeRecipes([recipe]), 'application/json');
}

async function saveStepTable(card: BrewCard): Promise<void> {
  const { stepTableCsv } = await loadSchemas();
  saveFile(`${card.recipeId}.csv`, stepTableCsv(card), 'text/csv');
}
