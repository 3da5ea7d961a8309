/**
 * What is being typed, kept while the person is away from the page: called to the bar, on another place, or reloading.
 */
import { useCallback, useState } from 'react';

const KEY = (name: string) => `even-kettle.draft@1.${name}`;

function stored(name: string): unknown {
  try {
    return JSON.parse(globalThis.sessionStorage?.getItem(KEY(name)) ?? 'null');
  } catch {
    return null;
  }
}

function store(name: string, value: unknown): void {
  try {
    if (value === null) globalThis.sessionStorage?.removeItem(KEY(name));
    else globalThis.sessionStorage?.setItem(KEY(name), JSON.stringify(value));
  } catch {
    // Full or switched off: it lasts as long as the page.
  }
}

/**
 * A value that outlives its page in this tab.
 * @param isOf whether what was kept is still of the right kind; what is not is set aside
 * @returns the value, how to change it, and how to let it go when it has been saved
 */
export function useDraft<Value>(
  name: string,
  initial: () => Value,
  isOf: (kept: unknown) => kept is Value,
): [Value, (next: Value) => void, () => void] {
  const [value, setValue] = useState<Value>(() => {
    const kept = stored(name);
    return isOf(kept) ? kept : initial();
  });
  const set = useCallback(
    (next: Value) => {
      store(name, next);
      setValue(next);
    },
    [name],
  );
  const forget = useCallback(() => store(name, null), [name]);
  return [value, set, forget];
}
