/**
 * The answer to "why?": a number's formula, and where each of its inputs came from.
 */
import { View } from 'react-native';
import type { Derivation, DerivedFrom, Source } from '@even-kettle/core/recipe';
import {
  celsiusToFahrenheit,
  inWords,
  showClock,
  showMass,
  showTemperature,
  showVolume,
  type Units,
} from '@even-kettle/core/units';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from './words';

const FROM: Record<Source, string> = {
  asked: WORDS.askedFor,
  recipe: 'recipe',
  method: 'method',
  brewer: 'brewer',
  bar: WORDS.bench,
  log: 'log',
  default: 'default',
  derived: WORDS.workedOut,
};

export function WhyCard({
  derivation,
  units,
  onClose,
}: {
  derivation: Derivation;
  units: Units;
  onClose: () => void;
}) {
  const theme = useTheme();
  return (
    <View
      role="region"
      aria-label={WORDS.whyForName2(derivation.name)}
      aria-live="polite"
      style={{ borderLeftWidth: 4, borderColor: theme.cool, paddingLeft: 12, gap: 4 }}
    >
      <Row style={{ justifyContent: 'space-between', minHeight: 40 }}>
        <Text bold style={{ flex: 1 }}>
          {derivation.name}: {withUnit(derivation.value, derivation.unit, units)}
        </Text>
        <Button kind="bare" icon="close" label="" says={WORDS.closeWhy} onPress={onClose} />
      </Row>
      {derivation.formula === 'given' ? null : (
        <Text style={{ fontFamily: 'monospace', fontSize: 13 }}>= {derivation.formula}</Text>
      )}
      {derivation.inputs.map((input) => (
        <Input key={input.symbol} input={input} units={units} />
      ))}
      {derivation.note ? (
        <Text size="small" quiet>
          {derivation.note}
        </Text>
      ) : null}
    </View>
  );
}

function Input({ input, units }: { input: DerivedFrom; units: Units }) {
  const theme = useTheme();
  return (
    <Row style={{ borderTopWidth: 1, borderColor: theme.rim, paddingVertical: 4, alignItems: 'baseline' }}>
      <Text size="small" style={{ width: 72, fontFamily: 'monospace', fontSize: 12 }} numberOfLines={1}>
        {input.symbol}
      </Text>
      <Text size="small" style={{ flex: 1 }}>
        {input.name}
        <Text size="small" quiet>
          {' '}
          · {FROM[input.from]}
        </Text>
      </Text>
      <Text size="small" bold>
        {withUnit(input.value, input.unit, units)}
      </Text>
    </Row>
  );
}

/** A derivation's figure in the bar's units. A difference of temperatures has no zero of its own. */
function withUnit(value: number, unit: string, units: Units): string {
  if (unit === 'g') return inWords(showMass(value, units, Number.isInteger(value) ? 'water' : 'dose'));
  if (unit === 'ml') return inWords(showVolume(value, units));
  if (unit === '°C' && units.temperature === 'F' && Math.abs(value) <= 6)
    return `${(celsiusToFahrenheit(value) - 32).toFixed(1)} °F`;
  if (unit === '°C') return inWords(showTemperature(value, units, !Number.isInteger(value)));
  if (unit === 's') return value >= 60 ? `${showClock(value)}` : `${value} s`;
  if (unit === 'g/g') return value.toFixed(2).replace(/\.?0+$/, '');
  return `${Number(value.toFixed(2))}${unit ? ` ${unit}` : ''}`;
}
