/**
 * Quotes for an order that is being taken: when it would be out, by each method, and what it would do to the others.
 */
import { startTransition, useEffect, useState } from 'react';
import type { Quote } from '@even-kettle/core/plan';
import { useBar, useHere } from '../../client/bar-context';
import type { QuoteDraft } from '../../client/plan.worker';

export type { QuoteDraft };

/** A change is asked about when nothing has been typed for so long, real milliseconds; and again so often. */
const SETTLE_MS = 60;
const AGAIN_MS = 10_000;

/** What is known of the drafts by their names, and of which of them it is good enough to be promised. */
export type Quotes = { quotes: Record<string, Quote>; careful: ReadonlySet<string> };

/** What a quote is of: the very cups, in a queue. */
const askedOf = ({ cups, queue }: Pick<QuoteDraft, 'cups' | 'queue'>): string =>
  JSON.stringify([cups, queue]);

/**
 * The quotes of drafts. A quote stands until a better one of the very same cups is there, and is gone at once when the cups
 * are others: an order is never promised by what was worked out for another.
 * @param further what else is to be asked once the first are known
 */
export function useQuotes(first: QuoteDraft[], further: (known: Quotes) => QuoteDraft[]): Quotes {
  const { planner, store } = useHere();
  const { plan } = useBar();
  const [answers, setAnswers] = useState<Record<string, { cups: string; quote: Quote; careful: boolean }>>(
    {},
  );
  const known = (drafts: readonly QuoteDraft[]): Quotes => {
    const answered = drafts.flatMap(({ name, cups, queue }) => {
      const answer = answers[name];
      return answer?.cups === askedOf({ cups, queue }) ? [{ name, ...answer }] : [];
    });
    return {
      quotes: Object.fromEntries(answered.map(({ name, quote }) => [name, quote])),
      careful: new Set(answered.flatMap(({ name, careful }) => (careful ? [name] : []))),
    };
  };
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
        const { name, quote, careful } = answer;
        const draft = wanted.find((each) => each.name === name);
        const cups = draft ? askedOf(draft) : '';
        // A dozen answers come at once; what is typed goes before them.
        startTransition(() =>
          setAnswers((before) => {
            const old = before[name];
            // A rough answer takes no careful one's place.
            return old?.cups === cups && old.careful && !careful
              ? before
              : { ...before, [name]: { cups, quote, careful } };
          }),
        );
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
