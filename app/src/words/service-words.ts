/**
 * How a cup is handed over, in a line: what goes in besides, to go, a wish.
 */
import { CUP_FIELDS, ORDER_FIELDS, type CupAsk } from '@even-kettle/core/brew';

const BESIDES: Record<string, string> = { ice: 'ice', milk: 'milk', sugar: 'sugar beside' };

export const serviceInWords = ({ besides = [], milk, toGo, note }: CupAsk): string =>
  [
    ...besides.map((each) => (each === 'milk' && milk ? null : (BESIDES[each] ?? each))),
    milk ? `milk: ${milk}` : null,
    toGo ? 'to go' : null,
    note ? `“${note}”` : null,
  ]
    .filter((part) => part !== null)
    .map((part, index) => (index === 0 ? part.charAt(0).toUpperCase() + part.slice(1) : part))
    .join(' · ');

const UPDATE = 'and more: update this device';

/**
 * What a newer server says of a cup and its order that this version has no words for: texts as they are, and that there is more.
 * Null where all is known.
 */
export function unknownInWords(cup: object, order: object = {}): string | null {
  const unknown = [
    ...Object.entries(cup).filter(([field]) => !Object.hasOwn(CUP_FIELDS, field)),
    ...Object.entries(order).filter(([field]) => !Object.hasOwn(ORDER_FIELDS, field)),
  ];
  if (unknown.length === 0) return null;
  const texts = unknown.flatMap(([field, value]) =>
    typeof value === 'string' ? [`${field}: ${value}`] : [],
  );
  return [...texts, UPDATE].join(' · ');
}
