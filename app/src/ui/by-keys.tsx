/**
 * What a keyboard does in a form: arrow keys go through a group of which one is chosen, Enter sends what was typed.
 */
import type { KeyboardEvent, ReactNode } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';

const STEP: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/** The next of the choices round, from the one that has the keyboard; the first where none has. */
export function chooseByArrow(event: Pick<KeyboardEvent, 'key' | 'currentTarget' | 'preventDefault'>): void {
  const by = STEP[event.key];
  if (by === undefined) return;
  const all = [
    ...event.currentTarget.querySelectorAll<HTMLElement>('[role="radio"]:not([aria-disabled="true"])'),
  ];
  if (all.length === 0) return;
  event.preventDefault();
  const at = all.indexOf(document.activeElement as HTMLElement);
  const next = all[(at < 0 ? 0 : at + by + all.length) % all.length]!;
  next.focus();
  next.click();
}

/** Elements of the web's own: React Native's types know no keys. Fields keep theirs to themselves, so they are heard first. */
const onKeys = (onKeyDownCapture: (event: KeyboardEvent<HTMLElement>) => void): object => ({
  onKeyDownCapture,
});

type GroupProps = { name: string; children: ReactNode; style?: StyleProp<ViewStyle> };

/** One of a few: the keyboard comes to the chosen one, and the arrow keys choose. */
export const RadioGroup = ({ name, children, style }: GroupProps) => (
  <View role="radiogroup" aria-label={name} style={style} {...onKeys(chooseByArrow)}>
    {children}
  </View>
);

/** Whether the keyboard comes to a choice: to the chosen one; where none is chosen, to the first. */
export const tabStop = (chosen: boolean, anyChosen: boolean, index: number): 0 | -1 =>
  chosen || (!anyChosen && index === 0) ? 0 : -1;

type FormProps = { onSubmit: () => void; children: ReactNode; style?: StyleProp<ViewStyle> };

/** Enter in a field of one line does what the form's own button does. */
export function Form({ onSubmit, children, style }: FormProps) {
  const submit = (event: KeyboardEvent<HTMLElement>) => {
    const inField = (event.target as HTMLElement).tagName === 'INPUT';
    if (event.key !== 'Enter' || !inField || event.nativeEvent.isComposing) return;
    event.preventDefault();
    event.stopPropagation();
    onSubmit();
  };
  return (
    <View style={style} {...onKeys(submit)}>
      {children}
    </View>
  );
}
