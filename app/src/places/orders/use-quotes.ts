/**
 * Quotes for an order that is being taken: when it would be out, by each method, and what it would do to the others.
 */
import { useEffect, useState } from 'react';
import type { CupAsk } from '@even-kettle/core/brew';
import type { Quote } from '@even-kettle/core/plan';
import { useBar, useHere } from '../../bar/bar-context';

export type QuoteDraft = { name: string; cups: CupAsk[] };

/** A change is asked about when nothing has been typed for so long, real milliseconds; and again so often. */
const SETTLE_MS = 60;
const AGAIN_MS = 10_000;

/** The quotes by the draft's name; those of drafts that are asked anew stand until the new ones are there. */
export function useQuotes(drafts: QuoteDraft[]): Record<string, Quote> {
  const { planner, store } = useHere();
  const { plan } = useBar();
  const [quotes, setQuotes] = useState<Record<string, Quote>>({});
  const asked = JSON.stringify(drafts);
  useEffect(() => {
    const wanted = JSON.parse(asked) as QuoteDraft[];
    let silence: (() => void) | null = null;
    const ask = () => {
      const given = store.given();
      if (!given || wanted.length === 0) return;
      silence?.();
      silence = planner.ask(given, { ask: 'quotes', drafts: wanted }, (answer) => {
        if (answer.ask === 'quotes') setQuotes((before) => ({ ...before, [answer.name]: answer.quote }));
      });
    };
    const first = setTimeout(ask, SETTLE_MS);
    const again = setInterval(ask, AGAIN_MS);
    return () => {
      clearTimeout(first);
      clearInterval(again);
      silence?.();
    };
  }, [asked, plan, planner, store]);
  return quotes;
}
