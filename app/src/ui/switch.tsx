/**
 * Something that is on or off, with its name beside it: the whole row is touched.
 */
import { View } from 'react-native';
import { Switch as PaperSwitch } from 'react-native-paper';
import { Text } from './text';
import { TOUCH } from './theme';
import { Touch } from './touch';
import { useTheme } from './use-theme';

type Props = {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
  /** Why it cannot be switched on here; null where it can. */
  absent?: string | null;
};

export function Switch({ label, on, onChange, absent = null }: Props) {
  const theme = useTheme();
  return (
    <Touch
      role="switch"
      aria-checked={on}
      aria-label={label}
      aria-disabled={absent !== null}
      disabled={absent !== null}
      onPress={() => onChange(!on)}
      onKeyDown={(event) => {
        if (event.key !== ' ') return;
        event.preventDefault();
        onChange(!on);
      }}
      style={{ flex: 1, minHeight: TOUCH, flexDirection: 'row', alignItems: 'center', gap: 12 }}
    >
      {/* The row is the switch; what shows it is no second one. */}
      <View aria-hidden {...INERT}>
        <PaperSwitch
          value={on}
          disabled={absent !== null}
          color={theme.ink}
          onValueChange={() => undefined}
        />
      </View>
      <Text quiet={absent !== null} style={{ flex: 1 }}>
        {label}
        {absent ? <Text size="small" quiet>{` (${absent})`}</Text> : null}
      </Text>
    </Touch>
  );
}

/** Neither keyboard nor pointer come to it. */
const INERT: object = { inert: true, pointerEvents: 'none' };
