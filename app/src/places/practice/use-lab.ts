/**
 * The shifts of a comparison as they come, and the search for the cheapest change that makes waits short.
 */
import { useEffect, useRef, useState } from 'react';
import {
  NINE_OF_TEN,
  changesOf,
  labFigures,
  type LabChange,
  type LabShift,
  type LabVariant,
} from '@even-kettle/core/practice';
import { runLab } from '../../client/lab';
import { useBar } from '../../client/bar-context';

export type Running = { done: number; of: number } | null;
/** The cheapest change that does, and the share of orders within eight minutes; null where none of them does. */
export type Found = { change: LabChange | null; best: LabChange | null; shortShare: number };

/** So many shifts tell whether a change is worth more of them. */
const SEARCH_SHIFTS = 6;

export function useLab() {
  const { bar, recipes } = useBar();
  const [shifts, setShifts] = useState<Record<string, LabShift[]>>({});
  const [running, setRunning] = useState<Running>(null);
  const [hasFailed, setFailed] = useState(false);
  const [found, setFound] = useState<Found | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);

  const live = (
    variants: readonly LabVariant[],
    count: number,
    onShift: (id: string, shift: LabShift) => void,
  ) =>
    new Promise<boolean>((resolve) => {
      if (!bar) return resolve(false);
      let isStopped = false;
      const end = runLab(
        { bench: bar, saved: recipes, variants, shifts: count },
        {
          onShift,
          onEnd: (wrong) => {
            setFailed(wrong !== null);
            resolve(wrong === null && !isStopped);
          },
        },
      );
      stop.current = () => {
        isStopped = true;
        end();
      };
    });

  const compare = async (variants: readonly LabVariant[], count: number) => {
    setShifts({});
    setFound(null);
    setRunning({ done: 0, of: variants.length * count });
    await live(variants, count, (id, shift) => {
      setShifts((before) => ({ ...before, [id]: [...(before[id] ?? []), shift] }));
      setRunning((now) => now && { ...now, done: now.done + 1 });
    });
    setRunning(null);
  };

  /** One change after another, the cheapest first, until nine of ten are out within eight minutes. */
  const search = async (base: LabVariant) => {
    const changes = changesOf(base);
    setFound(null);
    setRunning({ done: 0, of: changes.length * SEARCH_SHIFTS });
    let best: Found = { change: null, best: null, shortShare: 0 };
    for (const change of changes) {
      const own: LabShift[] = [];
      const isDone = await live([change.variant], SEARCH_SHIFTS, (_id, shift) => {
        own.push(shift);
        setRunning((now) => now && { ...now, done: now.done + 1 });
      });
      if (!isDone) return setRunning(null);
      const { shortShare } = labFigures(own);
      if (shortShare > best.shortShare) best = { change: null, best: change, shortShare };
      if (shortShare >= NINE_OF_TEN) {
        best = { change, best: change, shortShare };
        break;
      }
    }
    setFound(best);
    setRunning(null);
  };

  return { shifts, running, hasFailed, found, compare, search, cancel: () => stop.current() };
}
