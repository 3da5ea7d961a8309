/**
 * The few parts that every place is made of.
 */
import type { ReactNode } from 'react';
import {
  Pressable,
  ScrollView,
  View,
  useWindowDimensions,
  type StyleProp,
  type ViewStyle,
} from 'react-native';
import { RadioGroup, tabStop } from './by-keys';
import { Icon } from './icons';
import { useTheme } from './use-theme';
import { Text } from './text';
import { RADIUS, TOUCH, WIDE } from './theme';

/** A place's page: scrolls up and down, never sideways. */
export function Page({ children, wide }: { children: ReactNode; wide?: boolean }) {
  const theme = useTheme();
  return (
    <ScrollView
      // Pages with nothing to press must still scroll by keyboard.
      tabIndex={0}
      style={{ flex: 1, backgroundColor: theme.bg }}
      contentContainerStyle={{
        padding: 12,
        gap: 12,
        width: '100%',
        maxWidth: wide ? 1280 : 760,
        alignSelf: 'center',
      }}
    >
      {children}
    </ScrollView>
  );
}

/** Two halves of a page: beside each other where there is room, else one below the other. */
export function Halves({ first, second }: { first: ReactNode; second: ReactNode }) {
  const beside = useWindowDimensions().width >= WIDE;
  const half = { gap: 12, ...(beside ? { flex: 1 } : {}) };
  return (
    <View
      style={{
        flexDirection: beside ? 'row' : 'column',
        gap: 12,
        alignItems: beside ? 'flex-start' : 'stretch',
      }}
    >
      <View style={half}>{first}</View>
      <View style={half}>{second}</View>
    </View>
  );
}

export function Card({
  children,
  style,
  ruled,
}: {
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
  ruled?: boolean;
}) {
  const theme = useTheme();
  return (
    <View
      style={[
        {
          backgroundColor: theme.surface,
          borderColor: theme.rim,
          borderWidth: 1,
          borderRadius: RADIUS,
          padding: 14,
          gap: 8,
          overflow: 'hidden',
        },
        style,
      ]}
    >
      {ruled ? <RuledEdge /> : null}
      {children}
    </View>
  );
}

/** The sign of errors and of what cannot be taken back: a hatched edge in ink, never a second hot colour. */
function RuledEdge() {
  const theme = useTheme();
  const hatch = {
    backgroundImage: `repeating-linear-gradient(135deg, ${theme.ink} 0 3px, transparent 3px 7px)`,
  };
  return (
    <View
      aria-hidden
      style={[{ position: 'absolute', left: 0, top: 0, bottom: 0, width: 7 }, hatch as ViewStyle]}
    />
  );
}

export const Row = ({ children, style }: { children: ReactNode; style?: StyleProp<ViewStyle> }) => (
  <View style={[{ flexDirection: 'row', alignItems: 'center', gap: 10 }, style]}>{children}</View>
);

type TapProps = {
  label: string;
  onPress: () => void;
  /** While the finger is down, for what goes on as long as it is. */
  onPressIn?: () => void;
  onPressOut?: () => void;
  /** What a screen reader says, where the label alone would not do. */
  says?: string;
  kind?: 'plain' | 'main' | 'chosen' | 'ruled' | 'bare';
  icon?: string;
  disabled?: boolean;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

/** A button of ink on enamel. The flame is not for buttons like these: it is the hands card's alone. */
export function Tap({
  label,
  onPress,
  onPressIn,
  onPressOut,
  says,
  kind = 'plain',
  icon,
  disabled,
  testID,
  style,
}: TapProps) {
  const theme = useTheme();
  const main = kind === 'main';
  const color = main ? theme.surface : theme.ink;
  return (
    <Pressable
      role="button"
      aria-label={says ?? label}
      aria-disabled={disabled ?? false}
      disabled={disabled ?? false}
      onPress={onPress}
      onPressIn={onPressIn ?? null}
      onPressOut={onPressOut ?? null}
      testID={testID}
      style={({ pressed }) => [
        {
          minHeight: TOUCH,
          minWidth: TOUCH,
          paddingHorizontal: 14,
          borderRadius: RADIUS,
          flexDirection: 'row',
          alignItems: 'center',
          justifyContent: 'center',
          gap: 8,
        },
        {
          borderWidth: kind === 'bare' ? 0 : 1,
          borderColor: main ? theme.ink : theme.rim,
          backgroundColor: main ? theme.ink : pressed ? theme.coolPale : 'transparent',
        },
        kind === 'chosen' && { borderColor: theme.ink, backgroundColor: theme.coolPale },
        kind === 'ruled' && ({ borderStyle: 'dashed', borderColor: theme.ink2 } as ViewStyle),
        disabled && { opacity: 0.45 },
        style,
      ]}
    >
      {icon ? <Icon name={icon} color={color} size={20} /> : null}
      {label ? (
        <Text bold={main} color={color} numberOfLines={1}>
          {label}
        </Text>
      ) : null}
    </Pressable>
  );
}

type ChoiceProps<Value extends string> = {
  name: string;
  value: Value;
  options: readonly { value: Value; label: string; hint?: string }[];
  onChange: (value: Value) => void;
};

/** One of a few, all in sight. */
export function Choice<Value extends string>({ name, value, options, onChange }: ChoiceProps<Value>) {
  const theme = useTheme();
  const anyChosen = options.some((option) => option.value === value);
  return (
    <RadioGroup name={name} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {options.map((option, index) => {
        const chosen = option.value === value;
        return (
          <Pressable
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
          </Pressable>
        );
      })}
    </RadioGroup>
  );
}

/** What a place says when it has nothing to show yet, with the next step to take. */
export function Notice({
  title,
  children,
  action,
  ruled,
}: {
  title: string;
  children?: ReactNode;
  action?: ReactNode;
  ruled?: boolean;
}) {
  return (
    <Card ruled={ruled ?? false} style={{ padding: 20, gap: 10 }}>
      <Text size="title">{title}</Text>
      {children ? <Text quiet>{children}</Text> : null}
      {action ? <View style={{ alignSelf: 'flex-start' }}>{action}</View> : null}
    </Card>
  );
}

/** Room kept for what is on its way, so that nothing jumps when it comes. */
export function Loading({ what, height = 160 }: { what: string; height?: number }) {
  const theme = useTheme();
  return (
    <View
      role="status"
      aria-label={`Loading ${what}`}
      style={{
        height,
        borderRadius: RADIUS,
        borderWidth: 1,
        borderColor: theme.rim,
        backgroundColor: theme.surface,
        padding: 16,
      }}
    >
      <Text quiet>Loading {what}…</Text>
    </View>
  );
}
