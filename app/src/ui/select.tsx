/**
 * One of many, where a row of buttons would be too long: Paper's menu under a field that shows what is chosen. Arrow keys
 * go through it, a letter jumps, Escape closes it and leaves things as they were.
 */
import { useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import { View, useWindowDimensions, type StyleProp, type ViewStyle } from 'react-native';
import { Menu } from 'react-native-paper';
import { Icon } from './icons';
import { useKeptFocus } from './keep-focus';
import { Text } from './text';
import { FACE, FIELD_HEIGHT, RADIUS, TOUCH } from './theme';
import { Touch } from './touch';
import { useTheme } from './use-theme';
import { WORDS } from './words';

type Props<Value extends string> = {
  label: string;
  says?: string;
  value: Value;
  options: readonly { value: Value; label: string }[];
  onChange: (value: Value) => void;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

/** A list that still grows moves away from under a quick thumb. */
const AT_ONCE = { animation: { scale: 0 } };

export function Select<Value extends string>({
  label,
  says,
  value,
  options,
  onChange,
  testID,
  style,
}: Props<Value>) {
  const theme = useTheme();
  const [open, setOpen] = useState(false);
  const { height } = useWindowDimensions();
  const chosen = options.find((option) => option.value === value);
  const close = () => setOpen(false);
  return (
    <View style={[{ gap: 3, minWidth: 0 }, style]}>
      <Text size="small" quiet numberOfLines={1} aria-hidden>
        {label}
      </Text>
      <Touch
        role="button"
        aria-haspopup="menu"
        aria-expanded={open}
        aria-label={`${says ?? label}: ${chosen?.label ?? WORDS.nothingChosen}`}
        testID={testID}
        onPress={() => setOpen(true)}
        onKeyDown={(event: KeyboardEvent) => {
          if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
          event.preventDefault();
          setOpen(true);
        }}
        style={{
          height: FIELD_HEIGHT,
          flexDirection: 'row',
          alignItems: 'center',
          gap: 6,
          paddingHorizontal: 10,
          borderWidth: 1,
          borderColor: theme.rim,
          borderRadius: RADIUS,
          backgroundColor: theme.surface,
        }}
      >
        <Text numberOfLines={1} style={{ flex: 1 }}>
          {chosen?.label ?? ''}
        </Text>
        <Icon name="chevron-down" color={theme.ink2} size={18} />
      </Touch>
      {/* Only while it is open: a closed one of Paper's takes the keyboard as the page comes up. */}
      {open ? (
        <View style={{ position: 'absolute', bottom: 0, left: 0, right: 0 }}>
          <Menu
            visible
            onDismiss={close}
            anchorPosition="bottom"
            theme={AT_ONCE}
            overlayAccessibilityLabel={WORDS.closeTheList}
            contentStyle={{
              backgroundColor: theme.surface,
              borderWidth: Math.max(1, theme.rimWidth),
              borderColor: theme.ink2,
              borderRadius: RADIUS,
              paddingVertical: 4,
              maxHeight: height - 40,
            }}
            // Of some height, or Paper takes it for not drawn yet.
            anchor={<View style={{ height: 1 }} />}
          >
            <Options
              name={says ?? label}
              value={value}
              options={options}
              onClose={close}
              onChoose={(next) => {
                close();
                if (next !== value) onChange(next);
              }}
            />
          </Menu>
        </View>
      ) : null}
    </View>
  );
}

type OptionsProps<Value extends string> = Pick<Props<Value>, 'value' | 'options'> & {
  name: string;
  onChoose: (value: Value) => void;
  onClose: () => void;
};

function Options<Value extends string>({ name, value, options, onChoose, onClose }: OptionsProps<Value>) {
  const theme = useTheme();
  const box = useRef<View>(null);
  const at = options.findIndex((option) => option.value === value);
  // The arrow keys go through them, Tab does not. Paper's menu, half a second after it opens, would take the focus to the
  // first that Tab finds, away from where the keyboard is by then.
  useLayoutEffect(() => {
    const list = box.current as unknown as HTMLElement | null;
    if (list?.querySelectorAll) for (const item of itemsIn(list)) item.tabIndex = -1;
  });
  useKeptFocus(box, onClose, (list) => itemsIn(list)[Math.max(0, at)] ?? null);
  const keys: object = { onKeyDown: moveByKey };
  return (
    <View ref={box} role="menu" aria-label={name} {...keys}>
      {options.map((option) => {
        const chosen = option.value === value;
        return (
          <Menu.Item
            key={option.value}
            title={option.label}
            onPress={() => onChoose(option.value)}
            testID={`option-${option.value}`}
            accessibilityLabel={chosen ? WORDS.chosen(option.label) : option.label}
            style={{
              minHeight: TOUCH,
              maxWidth: 340,
              justifyContent: 'center',
              backgroundColor: chosen ? theme.coolPale : 'transparent',
            }}
            titleStyle={{
              fontFamily: chosen ? FACE.bold : FACE.regular,
              fontSize: 15,
              letterSpacing: 0,
              color: theme.ink,
            }}
          />
        );
      })}
    </View>
  );
}

const itemsIn = (list: Element) => [...list.querySelectorAll<HTMLElement>('[role="menuitem"]')];

/** Up and down, to the ends, or to the next that begins with a letter. */
function moveByKey(event: KeyboardEvent<HTMLElement>): void {
  const items = itemsIn(event.currentTarget);
  const at = items.indexOf(document.activeElement as HTMLElement);
  const next = itemByKey(event.key, items, at);
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function itemByKey(key: string, items: HTMLElement[], at: number): HTMLElement | undefined {
  switch (key) {
    case 'ArrowDown':
      return items[(at + 1) % items.length];
    case 'ArrowUp':
      return items[(at - 1 + items.length) % items.length];
    case 'Home':
      return items[0];
    case 'End':
      return items.at(-1);
    default: {
      if (key.length !== 1 || key === ' ') return undefined;
      const from = [...items.slice(at + 1), ...items.slice(0, at + 1)];
      return from.find((item) => item.textContent?.trim().toLowerCase().startsWith(key.toLowerCase()));
    }
  }
}
