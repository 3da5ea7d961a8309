/**
 * A card's steps to read and to do: the brew by its timer, and what comes before and after it.
 */
import { View } from 'react-native';
import { Touch } from '../../ui/touch';
import { fillOf, type BrewCard, type CardStep, type WhyOf } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showTemperature, type Units } from '@even-kettle/core/units';
import { useDevice } from '../../device/settings';
import { BedFromAbove } from '../../vessels/bed';
import { START_CUE_WORDS, pathsInWords } from '../../words/path-words';
import { useTheme } from '../../ui/use-theme';
import { Card } from '../../ui/card';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

type Props = { card: BrewCard; units: Units; onWhy?: (of: WhyOf) => void };

export function BrewSteps({ card, units, onWhy }: Props) {
  return (
    <Card style={{ gap: 0, paddingVertical: 8 }}>
      <Subheading style={{ marginBottom: 4 }}>{WORDS.theBrew}</Subheading>
      {card.steps
        .filter((step) => step.phase === 'brew' || step.kind === 'bypass')
        .map((step, index) => (
          <BrewStep
            key={step.id}
            step={step}
            card={card}
            units={units}
            first={index === 0}
            {...(onWhy ? { onWhy } : {})}
          />
        ))}
    </Card>
  );
}

function BrewStep({
  step,
  card,
  units,
  first,
  onWhy,
}: {
  step: CardStep;
  card: BrewCard;
  units: Units;
  first: boolean;
  onWhy?: (of: WhyOf) => void;
}) {
  const theme = useTheme();
  const targetG = step.kind === 'bypass' ? card.bypassG : step.targetG;
  const words = [
    step.startCue ? WORDS.whenForCue(START_CUE_WORDS[step.startCue]) : null,
    step.end === 'cue' ? WORDS.untilForCue(step.cue!, cueWindow(step)) : null,
    step.opening
      ? WORDS.firstPartTo(
          inWords(showMass(step.opening.targetG, units, 'water')),
          showClock(step.opening.untilS),
          step.opening.flowGPerS,
        )
      : null,
    step.flowGPerS === undefined ? null : `${step.flowGPerS} g/s`,
    step.waterC === undefined ? null : WORDS.waterOf(inWords(showTemperature(step.waterC, units))),
    step.hint ?? null,
  ].filter((word) => word !== null);
  return (
    <View
      style={{
        flexDirection: 'row',
        gap: 10,
        paddingVertical: 7,
        borderTopWidth: first ? 0 : 1,
        borderColor: theme.rim,
      }}
    >
      <Text bold style={{ width: 48, textAlign: 'right' }}>
        {showClock(step.startS)}
      </Text>
      <View style={{ flex: 1 }}>
        <Text quiet={!step.attended}>{step.name}</Text>
        {words.length > 0 ? (
          <Text size="small" quiet>
            {words.join(' · ')}
          </Text>
        ) : null}
        {step.mistake ? <Mistake text={step.mistake} /> : null}
        <WaterPaths step={step} units={units} />
      </View>
      {targetG === undefined ? null : (
        <Touch
          role="button"
          disabled={!onWhy || step.kind === 'bypass'}
          aria-label={WORDS.whyForTargetG(inWords(showMass(targetG, units, 'water')))}
          onPress={() => onWhy?.(`target:${step.id}`)}
          style={{ minWidth: 64, minHeight: 48, alignItems: 'flex-end' }}
        >
          <Text
            bold
          >{`${step.kind === 'bypass' ? '+' : ''}${inWords(showMass(targetG, units, 'water'))}`}</Text>
        </Touch>
      )}
    </View>
  );
}

/** Each part of a pour from above. */
export function PathDrawings({
  step: { paths = [] },
  size,
}: {
  step: Pick<CardStep, 'paths'>;
  size: number;
}) {
  const { pouringHand } = useDevice();
  return (
    <View style={{ flexDirection: 'row', gap: 4 }}>
      {paths.map((part, index) => (
        <BedFromAbove key={index} parts={[part]} hand={pouringHand} size={size} />
      ))}
    </View>
  );
}

/** Each part of a pour from above, with its words. */
export function WaterPaths({ step, units, size = 40 }: { step: CardStep; units: Units; size?: number }) {
  if (!step.paths) return null;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, marginTop: 4 }}>
      <PathDrawings step={step} size={size} />
      <Text size="small" style={{ flex: 1 }}>
        {pathsInWords(step, units)}
      </Text>
    </View>
  );
}

const cueWindow = ({ cueWindowS }: CardStep): string =>
  cueWindowS ? ` (${showClock(cueWindowS.from)}–${showClock(cueWindowS.to)})` : '';

/** What is most often forgotten: a notch and bold words, never a second hot colour. */
function Mistake({ text }: { text: string }) {
  const theme = useTheme();
  return (
    <Text
      size="small"
      bold
      style={{ borderLeftWidth: 3, borderColor: theme.ink, paddingLeft: 6, marginTop: 2 }}
    >
      {text}
    </Text>
  );
}

const TITLES = { prep: WORDS.before, finish: WORDS.andThen, clean: WORDS.cleaning } as const;

/** Prep, finish and cleaning as lists, with the commonest mistakes flagged. */
export function AroundSteps({ card, units, phases }: Props & { phases: readonly (keyof typeof TITLES)[] }) {
  return (
    <Card style={{ gap: 4 }}>
      {phases.map((phase) => (
        <View key={phase} style={{ gap: 4 }}>
          <Subheading>{TITLES[phase]}</Subheading>
          {card.steps
            .filter((step) => step.phase === phase && step.kind !== 'bypass')
            .map((step) => (
              <View key={step.id} style={{ flexDirection: 'row', gap: 8 }}>
                <Text quiet style={{ width: 44, textAlign: 'right' }}>
                  {showClock(step.durationS)}
                </Text>
                <View style={{ flex: 1 }}>
                  <Text quiet={!step.attended}>
                    {step.name}
                    {prepFigure(step, card, units)}
                  </Text>
                  {step.end === 'cue' && !step.attended ? (
                    <Text size="small" quiet>
                      {WORDS.untilForCue(step.cue!, cueWindow(step))}
                    </Text>
                  ) : null}
                  {step.checkC ? (
                    <Text size="small" quiet>
                      {WORDS.find(
                        showTemperature(step.checkC.from, units).figure,
                        inWords(showTemperature(step.checkC.to, units)),
                      )}
                    </Text>
                  ) : null}
                  {step.hint ? (
                    <Text size="small" quiet>
                      {step.hint}
                    </Text>
                  ) : null}
                  {step.mistake ? <Mistake text={step.mistake} /> : null}
                </View>
              </View>
            ))}
        </View>
      ))}
    </Card>
  );
}

function prepFigure(step: CardStep, card: BrewCard, units: Units): string {
  if (step.kind === 'weigh') return WORDS.intoTheBrewer(inWords(showMass(card.doseG, units, 'dose')));
  if (step.kind === 'fill')
    return `, ${inWords(showMass(card.waterIs === 'in the kettle' ? fillOf(step, card) : card.brewWaterG, units, 'water'))}`;
  return '';
}
