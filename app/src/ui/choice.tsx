/**
 * One of a few, all in sight.
 */
import { RadioGroup, tabStop } from './by-keys';
import { Text } from './text';
import { RADIUS, TOUCH } from './theme';
import { Touch } from './touch';
import { useTheme } from './use-theme';

type Props<Value extends string> = {
  name: string;
  value: Value;
  options: readonly { value: Value; label: string; hint?: string }[];
  onChange: (value: Value) => void;
};

export function Choice<Value extends string>({ name, value, options, onChange }: Props<Value>) {
  const theme = useTheme();
  const anyChosen = options.some((option) => option.value === value);
  return (
    <RadioGroup name={name} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {options.map((option, index) => {
        const chosen = option.value === value;
        return (
          <Touch
            key={option.value}
            role="radio"
            aria-checked={chosen}
            aria-label={option.hint ? `${option.label}, ${option.hint}` : option.label}
            onPress={() => onChange(option.value)}
            tabIndex={tabStop(chosen, anyChosen, index)}
            style={{
              minHeight: TOUCH,
              minWidth: TOUCH,
              paddingHorizontal: 14,
              paddingVertical: 6,
              borderRadius: RADIUS,
              justifyContent: 'center',
              borderWidth: chosen ? 2 : 1,
              margin: chosen ? 0 : 1,
              borderColor: chosen ? theme.ink : theme.rim,
              backgroundColor: chosen ? theme.coolPale : theme.surface,
            }}
          >
            <Text bold={chosen}>{option.label}</Text>
            {option.hint ? (
              <Text size="small" quiet={!chosen}>
                {option.hint}
              </Text>
            ) : null}
          </Touch>
        );
      })}
    </RadioGroup>
  );
}
