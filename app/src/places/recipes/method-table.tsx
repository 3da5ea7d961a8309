/**
 * The same coffee and cup in every method, side by side.
 */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Link } from '../../ui/link';
import {
  BREWERS,
  METHODS,
  bandInWords,
  calibrationFault,
  grindSetting,
  methodTable,
  type BrewCard,
  type Brewer,
  type Recipe,
} from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showTemperature, type Units } from '@even-kettle/core/units';
import { useBar } from '../../client/bar-context';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { Table, type Column } from '../../ui/table';
import { printOnly } from '../../ui/use-print-page';
import { TOUCH } from '../../ui/theme';
import { Vessel } from '../../vessels/vessel';
import type { Conversion } from './conversion';
import { WORDS } from './words';

const TABLE = 'method-table';

type Props = {
  recipes: readonly Recipe[];
  chosen: Recipe;
  made: Conversion & { ok: true };
  benchBrewers: readonly Brewer[];
  units: Units;
};

export function MethodTable({ recipes, chosen, made, benchBrewers, units }: Props) {
  const theme = useTheme();
  const { bar } = useBar();
  const [grinder] = bar?.grinders ?? [];
  const settingOf = useMemo(() => {
    if (!grinder || calibrationFault(grinder.points) !== null) return null;
    return ({ grindBand }: BrewCard) => {
      const found = grindSetting(grinder, grindBand, 0);
      return found.ok ? found.setting : null;
    };
  }, [grinder]);
  const [asTable, setAsTable] = useState(false);
  // The cup leads here, whatever led in the converter: it is what the guest holds.
  const cup = { cupMl: made.card.beverageG, ...(made.ask.addition ? { addition: made.ask.addition } : {}) };
  const rows = methodTable(recipes, cup, made.place, { chosen });
  return (
    <Card style={{ gap: 0 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading style={{ flexShrink: 1 }}>{WORDS.sameCupEveryMethod}</Subheading>
        <Button
          kind={asTable ? 'chosen' : 'bare'}
          label={WORDS.table}
          says={asTable ? WORDS.methodsAsList : WORDS.methodsAsTable}
          onPress={() => setAsTable(!asTable)}
        />
      </Row>
      <Text size="small" quiet style={{ marginBottom: 6 }}>
        {made.coffee?.name ?? WORDS.theSameCoffee}, {showMass(made.card.beverageG, units, 'water').figure}{' '}
        {units.mass} {WORDS.inTheCup}
      </Text>
      {asTable ? (
        <>
          <View testID={TABLE}>
            <Figures rows={rows} units={units} settingOf={settingOf} />
          </View>
          <Button
            kind="bare"
            label={WORDS.print}
            says={WORDS.printTheMethods}
            onPress={() => printOnly(TABLE)}
            style={{ alignSelf: 'flex-start' }}
          />
        </>
      ) : null}
      {(asTable ? [] : rows).map((row) => {
        const method = METHODS[row.recipe.method];
        const here = benchBrewers.some((brewer) => brewer.method === row.recipe.method);
        const own = row.recipe.id === chosen.id;
        return (
          <Link
            key={row.recipe.method}
            href={`/recipes/${row.recipe.id}`}
            aria-label={`${method.name}: ${row.recipe.name}`}
            style={({ pressed }) => ({
              flexDirection: 'row',
              alignItems: 'center',
              gap: 10,
              minHeight: TOUCH,
              paddingVertical: 6,
              paddingHorizontal: 6,
              marginHorizontal: -6,
              borderTopWidth: 1,
              borderColor: theme.rim,
              backgroundColor: own || pressed ? theme.coolPale : 'transparent',
            })}
          >
            <Vessel method={row.recipe.method} level={0.5} target={null} size={36} />
            <View style={{ flex: 1 }}>
              <Row style={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
                <Text bold={own} style={{ flexShrink: 1 }}>
                  {method.name}
                </Text>
                {row.ok ? (
                  <Text bold>
                    {inWords(showMass(row.card.doseG, units, 'dose'))} ·{' '}
                    {inWords(showMass(row.card.brewWaterG, units, 'water'))}
                  </Text>
                ) : null}
              </Row>
              <Text size="small" quiet>
                {row.ok ? factsOf(row.card, units, row.brewer !== undefined) : row.reason}
              </Text>
              <Text size="small" quiet>
                {WORDS.body} {method.body} {WORDS.of5Clarity} {method.clarity} {WORDS.of5}
                {row.ok && !row.brewer ? ` · ${outOfRange(row.card)}` : here ? '' : WORDS.notOnThisBench}
              </Text>
            </View>
          </Link>
        );
      })}
    </Card>
  );
}

type Rows = ReturnType<typeof methodTable>;

/** The figures of every method, to be sorted. */
function Figures({
  rows,
  units,
  settingOf,
}: {
  rows: Rows;
  units: Units;
  /** What the grinder stands at for a card; null where the bar's is set by feel. */
  settingOf: ((card: BrewCard) => number | null) | null;
}) {
  const columns = useMemo((): Column<Rows[number]>[] => {
    const figure = (
      name: string,
      of: (card: BrewCard) => number,
      show: (card: BrewCard) => string,
    ): Column<Rows[number]> => ({
      name,
      value: (row) => (row.ok ? of(row.card) : null),
      show: (row) => (row.ok ? show(row.card) : ''),
      numeric: true,
    });
    const mass = (what: 'dose' | 'water') => (g: number) => inWords(showMass(g, units, what));
    return [
      { name: WORDS.method, value: ({ recipe }) => METHODS[recipe.method].name },
      figure(
        WORDS.dose,
        ({ doseG }) => doseG,
        ({ doseG }) => mass('dose')(doseG),
      ),
      figure(
        WORDS.water,
        ({ brewWaterG }) => brewWaterG,
        ({ brewWaterG }) => mass('water')(brewWaterG),
      ),
      figure(
        WORDS.ratio,
        ({ ratio }) => ratio,
        ({ ratio }) => `1:${ratio.toFixed(1)}`,
      ),
      figure(
        WORDS.temperature,
        ({ waterC }) => waterC,
        ({ waterC }) => inWords(showTemperature(waterC, units, true)),
      ),
      figure(
        WORDS.grind,
        ({ grindBand }) => grindBand,
        ({ grindBand }) => `${bandInWords(grindBand)} (${grindBand})`,
      ),
      ...(settingOf
        ? [
            figure(
              WORDS.settingLabel,
              (card) => settingOf(card) ?? 0,
              (card) => String(settingOf(card) ?? '–'),
            ),
          ]
        : []),
      figure(
        WORDS.time,
        ({ brewTimeS }) => brewTimeS,
        ({ brewTimeS }) => showClock(brewTimeS),
      ),
      figure(
        WORDS.hands,
        ({ handsTimeS }) => handsTimeS,
        ({ handsTimeS }) => showClock(handsTimeS),
      ),
      { name: WORDS.bodyLabel, value: ({ recipe }) => METHODS[recipe.method].body, numeric: true },
      { name: WORDS.clarity, value: ({ recipe }) => METHODS[recipe.method].clarity, numeric: true },
    ];
  }, [units, settingOf]);
  return <Table label={WORDS.figuresOfEveryMethod} columns={columns} rows={rows} />;
}

/** What no brewer takes in one go has no time: it is not brewed like that. */
const factsOf = (card: BrewCard, units: Units, fits: boolean): string =>
  [
    `1:${card.ratio.toFixed(1)}`,
    inWords(showTemperature(card.waterC, units, !Number.isInteger(card.waterC))),
    bandInWords(card.grindBand),
    ...(fits ? [showClock(card.brewTimeS), WORDS.handsTime(showClock(card.handsTimeS))] : []),
  ].join(' · ');

/** No brewer of the method takes the dose in one go. */
const outOfRange = ({ method, doseG }: BrewCard): string =>
  BREWERS.some((brewer) => brewer.method === method && brewer.minDoseG <= doseG)
    ? WORDS.needsSeveralBrews
    : WORDS.tooLittleForBrewers;
