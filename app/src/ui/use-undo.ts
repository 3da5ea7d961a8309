/**
 * The way back through what was changed in a form. What is typed in one go is one change.
 */
import { useRef, useState } from 'react';

/** Changes that follow each other within this are one, milliseconds. */
const IN_ONE_GO_MS = 700;
const DEEPEST = 100;

/** What a value is made of, whatever stands in it: a part that comes or goes is a change of its own. */
const shapeOf = (value: unknown): string =>
  JSON.stringify(value, (_key, part: unknown) => (typeof part === 'object' ? part : 0));

export function useUndo<Value>(value: Value, keep: (next: Value) => void) {
  const [past, setPast] = useState<readonly Value[]>([]);
  const changedMs = useRef(-Infinity);
  return {
    setDraft: (next: Value) => {
      const nowMs = performance.now();
      const goesOn = nowMs - changedMs.current < IN_ONE_GO_MS && shapeOf(next) === shapeOf(value);
      changedMs.current = nowMs;
      if (!goesOn || past.length === 0) setPast([...past, value].slice(-DEEPEST));
      keep(next);
    },
    canUndo: past.length > 0,
    undo: () => {
      const before = past.at(-1);
      if (past.length === 0) return;
      setPast(past.slice(0, -1));
      changedMs.current = -Infinity;
      keep(before as Value);
    },
  };
}
