/**
 * How a cup is handed over, in a line: what goes in besides, to go, a wish.
 */
import type { CupAsk } from '@even-kettle/core/brew';

const BESIDES = { ice: 'ice', milk: 'milk', sugar: 'sugar beside' } as const;

export const serviceInWords = ({ besides = [], milk, toGo, note }: CupAsk): string =>
  [
    ...besides.map((each) => (each === 'milk' && milk ? null : BESIDES[each])),
    milk ? `milk: ${milk}` : null,
    toGo ? 'to go' : null,
    note ? `“${note}”` : null,
  ]
    .filter((part) => part !== null)
    .map((part, index) => (index === 0 ? part.charAt(0).toUpperCase() + part.slice(1) : part))
    .join(' · ');
