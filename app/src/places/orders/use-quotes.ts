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

/**
 * The quotes by the draft's name. A quote stands until a newer one of the very same cups is there, and is gone at once when
 * the cups are others: an order is never promised by what was worked out for another.
 * @param further what else is to be asked once the first are known
 */
export function useQuotes(
  first: QuoteDraft[],
  further: (known: Record<string, Quote>) => QuoteDraft[],
): Record<string, Quote> {
  const { planner, store } = useHere();
  const { plan } = useBar();
  const [answers, setAnswers] = useState<Record<string, { cups: string; quote: Quote }>>({});
  const known = (drafts: QuoteDraft[]): Record<string, Quote> =>
    Object.fromEntries(
      drafts.flatMap(({ name, cups }) => {
        const answer = answers[name];
        return answer?.cups === JSON.stringify(cups) ? [[name, answer.quote]] : [];
      }),
    );
  const drafts = [...first, ...further(known(first))];
  const asked = JSON.stringify(drafts);
  useEffect(() => {
    const wanted = JSON.parse(asked) as QuoteDraft[];
    let silence: (() => void) | null = null;
    const ask = () => {
      const given = store.given();
      if (!given || wanted.length === 0) return;
      silence?.();
      silence = planner.ask(given, { ask: 'quotes', drafts: wanted }, (answer) => {
        if (answer.ask !== 'quotes') return;
        const { name, quote } = answer;
        const cups = JSON.stringify(wanted.find((draft) => draft.name === name)?.cups);
        setAnswers((before) => ({ ...before, [name]: { cups, quote } }));
      });
    };
    const soon = setTimeout(ask, SETTLE_MS);
    const again = setInterval(ask, AGAIN_MS);
    return () => {
      clearTimeout(soon);
      clearInterval(again);
      silence?.();
    };
  }, [asked, plan, planner, store]);
  return known(drafts);
}
