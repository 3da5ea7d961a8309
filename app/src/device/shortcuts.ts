/**
 * The keys of a bar with a keyboard: one list, that the page of keys and the listener both read.
 */
import { useEffect, useLayoutEffect, useRef } from 'react';

export const SHORTCUTS: readonly { keys: string; does: string }[] = [
  { keys: 'Space', does: 'what the hands card asks for is done' },
  { keys: 'U', does: 'undo the latest tap' },
  { keys: 'N', does: 'new order' },
  { keys: '1 to 9', does: 'take the next step of that station' },
  { keys: 'B, O, R, L', does: 'Bar, Orders, Recipes, Log' },
  { keys: '+ and -', does: 'the rail, closer and wider' },
  { keys: 'Arrows on a grip', does: 'move an order sooner or later' },
  { keys: '?', does: 'this list' },
];

export type Keys = { station?: (number: number) => void } & Partial<Record<string, unknown>>;

/** Keys that are typed into a field are the field's; and a focused button keeps its own space. */
function isTyping(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)) return true;
  const pressed = target.closest('button,[role="button"],[role="link"],[role="radio"],[role="checkbox"]');
  return key === ' ' && pressed !== null;
}

/** Listens for single keys while the component is shown. */
export function useShortcuts(keys: Keys): void {
  const latest = useRef(keys);
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event.target, event.key))
        return;
      const { station } = latest.current;
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const act = latest.current[key];
      if (typeof act === 'function') (act as () => void)();
      else if (station && /^[1-9]$/.test(key)) station(Number(key));
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
