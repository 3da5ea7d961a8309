/**
 * One recipe for two or three sizes on one page, to hang on the wall: what is the same once, what differs side by side.
 */
import { View } from 'react-native';
import type { BrewCard, CardStep, Recipe } from '@even-kettle/core/recipe';
import {
  inWords,
  showClock,
  showMass,
  showTemperature,
  showVolume,
  type Units,
} from '@even-kettle/core/units';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { PAPER } from '../../ui/theme';
import { sizeText } from '../../words/size-text';
import type { Conversion } from './conversion';
import { WaterPaths } from './steps';
import { WORDS } from './words';

export const WALL_SIZES_ML = [150, 200, 250, 300, 350, 500];
const MOST_SIZES = 3;

type Made = Conversion & { ok: true };

/** Which sizes stand on the page: up to three, the oldest choice giving way. */
export function WallSizes({
  chosen,
  units,
  onChange,
}: {
  chosen: readonly number[];
  units: Units;
  onChange: (sizes: number[]) => void;
}) {
  return (
    <View role="group" aria-label={WORDS.forTheWall} style={{ gap: 4 }}>
      <Text size="small">{WORDS.forTheWall}</Text>
      <Row style={{ flexWrap: 'wrap' }}>
        {WALL_SIZES_ML.map((ml) => {
          const on = chosen.includes(ml);
          return (
            <Button
              key={ml}
              label={sizeText(ml, units)}
              says={`${inWords(showVolume(ml, units))}: ${on ? 'yes' : 'no'}`}
              kind={on ? 'chosen' : 'plain'}
              onPress={() =>
                onChange(
                  on
                    ? chosen.filter((each) => each !== ml)
                    : [...chosen, ml].slice(-MOST_SIZES).sort((a, b) => a - b),
                )
              }
            />
          );
        })}
      </Row>
    </View>
  );
}

export function Wall({ recipe, sizes, units }: { recipe: Recipe; sizes: readonly Made[]; units: Units }) {
  const cards = sizes.map(({ card }) => card);
  const water = (grams: number) => inWords(showMass(grams, units, 'water'));
  const rows: [string, (card: BrewCard) => string][] = [
    [WORDS.dose, ({ doseG }) => inWords(showMass(doseG, units, 'dose'))],
    [WORDS.water, ({ brewWaterG }) => water(brewWaterG)],
    [WORDS.waterAt, ({ waterC }) => inWords(showTemperature(waterC, units))],
    [WORDS.grind, ({ grindBand }) => WORDS.of100(grindBand)],
  ];
  const first = cards[0]!;
  return (
    <View testID="wall" style={{ gap: 6 }}>
      <Line
        heading={WORDS.cup}
        cells={cards.map(({ beverageG }) => inWords(showVolume(beverageG, units)))}
        large
      />
      {rows.map(([name, cell]) => (
        <Line key={name} heading={name} cells={cards.map(cell)} />
      ))}
      <Subheading>{WORDS.theBrew}</Subheading>
      {first.steps
        .filter(({ phase, kind }) => phase === 'brew' || kind === 'bypass')
        .map((step) => (
          <StepLine key={step.id} step={step} cards={cards} units={units} />
        ))}
      <Line
        heading={WORDS.time}
        cells={cards.map(({ brewWindowS: { from, to } }) => `${showClock(from)}–${showClock(to)}`)}
      />
      {recipe.cautions.length > 0 ? (
        <Text size="small" quiet style={{ fontSize: 11, lineHeight: 14 }}>
          {recipe.cautions.join(' ')}
        </Text>
      ) : null}
    </View>
  );
}

const CELL_W = 120;

function Line({
  heading,
  cells,
  large = false,
}: {
  heading: string;
  cells: readonly string[];
  large?: boolean;
}) {
  return (
    <Row style={{ borderBottomWidth: 1, borderColor: PAPER.rim, paddingVertical: 3, alignItems: 'center' }}>
      <Text size="small" style={{ flex: 1 }}>
        {heading}
      </Text>
      {cells.map((cell, index) => (
        <Text key={index} bold size={large ? 'verb' : 'body'} style={{ width: CELL_W, textAlign: 'right' }}>
          {cell}
        </Text>
      ))}
    </Row>
  );
}

/** When, and to which reading, at each size; where the water goes once. */
function StepLine({ step, cards, units }: { step: CardStep; cards: readonly BrewCard[]; units: Units }) {
  const shares = { ...step };
  // Readings of its parts differ by size, so the words leave them out.
  if (shares.paths) shares.paths = shares.paths.map(({ toG: _toG, ...part }) => part);
  return (
    <Row
      style={{ borderBottomWidth: 1, borderColor: PAPER.rim, paddingVertical: 3, alignItems: 'flex-start' }}
    >
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text size="small" bold>
          {step.name}
          {step.end === 'cue' ? WORDS.until(step.cue!) : ''}
        </Text>
        <WaterPaths step={shares} units={units} size={26} />
      </View>
      {cards.map((card, index) => {
        const own = card.steps.find(({ id }) => id === step.id);
        return (
          <View key={index} style={{ width: CELL_W, alignItems: 'flex-end' }}>
            <Text size="small">{own ? showClock(own.startS) : '–'}</Text>
            {own?.targetG === undefined ? null : (
              <Text bold>{inWords(showMass(own.targetG, units, 'water'))}</Text>
            )}
          </View>
        );
      })}
    </Row>
  );
}
