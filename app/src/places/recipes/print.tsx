/**
 * A recipe's card for paper: one page, ink on white, whatever look the page wears.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { METHODS, type CardStep, type Recipe } from '@even-kettle/core/recipe';
import {
  inWords,
  showClock,
  showMass,
  showTemperature,
  showVolume,
  type Units,
} from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { WithTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { PAPER } from '../../ui/theme';
import { usePrintPage } from '../../ui/use-print-page';
import { useConverterInput } from './asked';
import { recipeCode } from './code';
import { convert, type Conversion } from './conversion';
import { sizeText } from '../../words/size-text';
import { PourChart } from './pour-chart';
import { Wall, WallSizes } from './print-wall';
import { QrPicture } from '../../ui/qr-picture';
import { START_CUE_WORDS, lower, pathInWords } from '../../words/path-words';
import { PathDrawings } from './steps';
import { WORDS } from './words';

export function PrintRecipe({ recipe }: { recipe: Recipe }) {
  const units = useUnits();
  const { bar } = useBar();
  const [asked] = useConverterInput(recipe.id, `${units.mass} ${units.volume}`, sizeText(250, units));
  const made = convert(recipe, asked, bar, units);
  const [sizes, setSizes] = useState<number[]>([]);
  usePrintPage();
  const back = () => router.replace({ pathname: '/recipes/[id]', params: { id: recipe.id } });
  if (!made.ok)
    return (
      <View style={{ padding: 20, gap: 12 }}>
        <Text role="alert">{made.reason}</Text>
        <Button label={WORDS.back} onPress={back} />
      </View>
    );
  const { card, coffee, grinder, grind, brewer } = made;
  const several = sizes
    .map((ml) => convert(recipe, { ...asked, lead: 'cup', text: sizeText(ml, units), cups: '1' }, bar, units))
    .filter((each) => each.ok);
  const water = (g: number) => inWords(showMass(g, units, 'water'));
  const facts: [string, string][] = [
    [WORDS.cup, inWords(showVolume(card.beverageG, units))],
    [WORDS.dose, inWords(showMass(card.doseG, units, 'dose'))],
    [WORDS.water, water(card.brewWaterG)],
    [WORDS.ratio, `1:${card.ratio.toFixed(1)}`],
    [WORDS.waterAt, inWords(showTemperature(card.waterC, units, !Number.isInteger(card.waterC)))],
    [WORDS.grind, grind?.ok ? `${grinder!.name} ${grind.setting}` : WORDS.of100(card.grindBand)],
    [WORDS.time, `${showClock(card.brewWindowS.from)}–${showClock(card.brewWindowS.to)}`],
    [WORDS.brewer, brewer.name],
  ];
  return (
    <WithTheme theme={PAPER}>
      <View role="main" style={{ backgroundColor: PAPER.bg, flexGrow: 1 }}>
        <View testID="print-bar">
          <Row style={{ padding: 12 }}>
            <Button kind="main" label={WORDS.printThisCard} onPress={() => window.print()} />
            <Button kind="bare" label={WORDS.back} onPress={back} />
          </Row>
          <View style={{ paddingHorizontal: 12, paddingBottom: 12 }}>
            <WallSizes chosen={sizes} units={units} onChange={setSizes} />
          </View>
        </View>
        <View style={{ width: '100%', maxWidth: 700, alignSelf: 'center', paddingHorizontal: 16, gap: 8 }}>
          <Row style={{ alignItems: 'flex-start', justifyContent: 'space-between' }}>
            <View style={{ flex: 1 }}>
              <Text size="small">
                {WORDS.versionM(
                  METHODS[recipe.method].name,
                  recipe.version,
                  coffee ? ` · ${coffee.name}, ${coffee.roast}` : '',
                  made.place.altitudeM,
                )}
              </Text>
              <Heading style={{ fontSize: 24, lineHeight: 30 }}>{recipe.name}</Heading>
              <Text size="small">{recipe.why}</Text>
            </View>
            <QrPicture
              text={recipeCode(recipe, window.location.origin)}
              size={110}
              says={WORDS.recipeAsCode}
            />
          </Row>
          {several.length > 1 ? (
            <Wall recipe={recipe} sizes={several} units={units} />
          ) : (
            <OneSize recipe={recipe} made={made} units={units} facts={facts} />
          )}
        </View>
      </View>
    </WithTheme>
  );
}

/** Drawings beside the name; their words only where they are other than those of the pour before. */
function PrintedStep({
  step,
  before,
  units,
}: {
  step: CardStep;
  before: CardStep | undefined;
  units: Units;
}) {
  const words = pathNames(step);
  return (
    <Row style={{ paddingVertical: 1, alignItems: 'flex-start' }}>
      <Text size="small" bold style={{ width: 40 }}>
        {showClock(step.startS)}
      </Text>
      <View style={{ flex: 1 }}>
        <Text size="small">
          {step.name}
          {step.startCue ? `, ${WORDS.whenForCue(START_CUE_WORDS[step.startCue])}` : ''}
          {step.end === 'cue' ? WORDS.until(step.cue!) : ''}
        </Text>
        {words === '' || (before && pathNames(before) === words) ? null : (
          <Text size="small" quiet style={{ fontSize: 11, lineHeight: 14 }}>
            {words}
          </Text>
        )}
      </View>
      <PathDrawings step={step} size={20} />
      <Text size="small" bold style={{ minWidth: 52, textAlign: 'right' }}>
        {step.targetG === undefined ? '' : inWords(showMass(step.targetG, units, 'water'))}
      </Text>
    </Row>
  );
}

/** Without the readings, which differ from pour to pour. */
const pathNames = ({ paths = [] }: CardStep): string =>
  paths.map((part, n) => (n === 0 ? pathInWords(part) : lower(pathInWords(part)))).join(', then ');

function OneSize({
  recipe,
  made: { card },
  units,
  facts,
}: {
  recipe: Recipe;
  made: Conversion & { ok: true };
  units: Units;
  facts: readonly [string, string][];
}) {
  return (
    <>
      <View
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          borderTopWidth: 1,
          borderBottomWidth: 1,
          borderColor: PAPER.ink,
        }}
      >
        {facts.map(([name, value]) => (
          <View key={name} style={{ width: '25%', paddingVertical: 5 }}>
            <Text size="small" quiet>
              {name}
            </Text>
            <Text bold>{value}</Text>
          </View>
        ))}
      </View>
      <PourChart
        still
        card={card}
        units={units}
        width={Math.min(660, document.documentElement.clientWidth - 32)}
      />
      <Row style={{ alignItems: 'flex-start', gap: 20 }}>
        <View style={{ flex: 3 }}>
          <Subheading>{WORDS.theBrew}</Subheading>
          {card.steps
            .filter((step) => step.phase === 'brew' || step.kind === 'bypass')
            .map((step, index, all) => (
              <PrintedStep
                key={step.id}
                step={step}
                before={all.slice(0, index).findLast(({ paths }) => paths)}
                units={units}
              />
            ))}
        </View>
        <View style={{ flex: 2 }}>
          <Subheading>{WORDS.before}</Subheading>
          {card.steps
            .filter((step) => step.phase === 'prep' && step.attended)
            .map((step) => (
              <Text key={step.id} size="small">
                □ {step.name}
              </Text>
            ))}
        </View>
      </Row>
      {card.notes.map((note) => (
        <Text key={note} size="small">
          {note}
        </Text>
      ))}
      <Text size="small" quiet style={{ fontSize: 11, lineHeight: 14 }}>
        {recipe.cautions.join(' ')}
      </Text>
    </>
  );
}
