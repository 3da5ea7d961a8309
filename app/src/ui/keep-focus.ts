/**
 * An overlay takes the keyboard focus, keeps it, closes on Escape, and returns the focus to where it was.
 */
import { useEffect, type RefObject } from 'react';
import type { View } from 'react-native';

const FOCUSABLE = ['a[href]', 'button', 'input', 'textarea', '[tabindex]:not([tabindex="-1"])'].join();

/** The elements that can have the focus, in order. */
const stopsIn = (box: HTMLElement): HTMLElement[] =>
  [...box.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(
    (element) => element.tabIndex >= 0 && element.getAttribute('aria-disabled') !== 'true',
  );

/** @param first picks the element that gets the focus first; if left out, the first that can */
export function useKeptFocus(
  ref: RefObject<View | null>,
  onClose: () => void,
  first?: (box: HTMLElement) => HTMLElement | null,
): void {
  useEffect(() => {
    // On the web a view is its element. Where components are tested there is none.
    const box = ref.current as unknown as HTMLElement | null;
    if (!box?.querySelectorAll) return;
    const before = document.activeElement as HTMLElement | null;
    (first?.(box) ?? stopsIn(box)[0] ?? box).focus();
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape') {
        event.stopPropagation();
        return onClose();
      }
      if (event.key !== 'Tab') return;
      const stops = stopsIn(box);
      const at = stops.indexOf(document.activeElement as HTMLElement);
      const wrapped = event.shiftKey
        ? at <= 0
          ? stops.at(-1)
          : null
        : at === stops.length - 1
          ? stops[0]
          : null;
      if (!wrapped && at >= 0) return;
      event.preventDefault();
      (wrapped ?? stops[0] ?? box).focus();
    };
    box.addEventListener('keydown', onKey);
    return () => {
      box.removeEventListener('keydown', onKey);
      before?.focus();
    };
    // Once: what is closed with may be another function each time the page is drawn.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
}
