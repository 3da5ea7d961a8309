/**
 * The way back from what was said last, for as long as it may be taken back.
 */
import { useEffect, useState, type ReactNode } from 'react';
import { useBar, useHere } from '../client/bar-context';
import { Button } from '../ui/button';
import { WORDS } from './words';

export function Undo({ otherwise = null }: { otherwise?: ReactNode }) {
  const { store } = useHere();
  const { undoable } = useBar();
  const [realMs, setRealMs] = useState(Date.now);
  useEffect(() => {
    if (!undoable) return undefined;
    const timer = setInterval(() => setRealMs(Date.now()), 250);
    return () => clearInterval(timer);
  }, [undoable]);
  const leftS = undoable ? Math.ceil((undoable.untilRealMs - realMs) / 1000) : 0;
  if (!undoable || leftS <= 0) return otherwise;
  return (
    <Button
      kind="bare"
      icon="undo"
      label={WORDS.undo(Math.min(10, leftS))}
      says={WORDS.undoForLabel(undoable.label)}
      onPress={store.undo}
      testID="undo"
      style={{ paddingHorizontal: 0 }}
    />
  );
}
