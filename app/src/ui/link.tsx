/**
 * A row or tile that leads to another place: a real link, so that Enter follows it, and a tap with Ctrl or the middle button
 * opens it beside. React Native's web leaves the Enter key of links to the browser, which needs an address for it.
 */
import type { GestureResponderEvent } from 'react-native';
import { router, type Href } from 'expo-router';
import { Touch, type TouchProps } from './touch';

type Props = Omit<TouchProps, 'role' | 'onPress'> & {
  /** Where it leads: an address of this app. */
  href: Extract<Href, string>;
  /** What a plain tap does instead of going there, where the place itself shows it. */
  onOpen?: () => void;
};

export function Link({ href, onOpen, ...rest }: Props) {
  return (
    <Touch
      {...rest}
      role="link"
      {...{ href }}
      onPress={(event) => {
        if (opensBeside(event)) return;
        event.preventDefault();
        if (onOpen) onOpen();
        else router.navigate(href);
      }}
    />
  );
}

/** Whether the browser is asked to open it in a tab or window of its own. */
function opensBeside(event: GestureResponderEvent): boolean {
  const { ctrlKey, metaKey, shiftKey, button } = event as unknown as MouseEvent;
  return Boolean(ctrlKey || metaKey || shiftKey) || (button ?? 0) !== 0;
}
