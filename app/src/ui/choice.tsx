/**
 * One of a few, all in sight.
 */
import { memo } from 'react';
import { RadioGroup, tabStop } from './by-keys';
import { Text } from './text';
import { RADIUS, TOUCH } from './theme';
import { Touch } from './touch';
import { useStable } from './use-stable';
import { useTheme } from './use-theme';

type Props<Value extends string> = {
  name: string;
  value: Value;
  /** `pending`: what stands after the hint until something is known, so that its room is kept; it is not read out. */
  options: readonly { value: Value; label: string; hint?: string; pending?: string | undefined }[];
  onChange: (value: Value) => void;
};

export function Choice<Value extends string>({ name, value, options, onChange }: Props<Value>) {
  const anyChosen = options.some((option) => option.value === value);
  const choose = useStable((chosen: string) => onChange(chosen as Value));
  return (
    <RadioGroup name={name} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {options.map((option, index) => (
        <Option
          key={option.value}
          value={option.value}
          label={option.label}
          hint={option.hint}
          pending={option.pending}
          chosen={option.value === value}
          tabIndex={tabStop(option.value === value, anyChosen, index)}
          onChoose={choose}
        />
      ))}
    </RadioGroup>
  );
}

type OptionProps = {
  value: string;
  label: string;
  hint: string | undefined;
  pending: string | undefined;
  chosen: boolean;
  tabIndex: 0 | -1;
  onChoose: (value: string) => void;
};

/** Rendered again only where it reads otherwise: a form has dozens of them. */
const Option = memo(function Option({
  value,
  label,
  hint,
  pending,
  chosen,
  tabIndex,
  onChoose,
}: OptionProps) {
  const theme = useTheme();
  return (
    <Touch
      role="radio"
      aria-checked={chosen}
      aria-label={hint ? `${label}, ${hint}` : label}
      onPress={() => onChoose(value)}
      tabIndex={tabIndex}
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
      <Text bold={chosen}>{label}</Text>
      {hint ? (
        <Text size="small" quiet={!chosen}>
          {hint}
          {pending}
        </Text>
      ) : null}
    </Touch>
  );
});
