/**
 * Reads a recipe as people write and say it. Every figure and every word of the craft is used, or marked as not understood; what
 * is not understood fills nothing, and what is said twice otherwise is asked.
 */
import { METHODS, type MethodId } from '../../recipe';
import { middle, newDraft, placeOf, state, type Draft } from './draft';
import type { Token } from './figures';
import { lineOf, readLine, type Line, type Match, type Rule, type Use } from './grammar';
import { BARE, FACTS, LEFT_OUT, NAMES } from './rules-facts';
import { DONE, IMMERSED } from './rules-immersed';
import { LAST, POURS } from './rules-pours';
import { settle, type ReadText } from './settle';
import { CRAFT_WORDS, FILTERS, METHOD_NAMES, PRESS_NOUN } from './vocabulary';

export type { ReadPour, ReadText } from './settle';
export { plainFrom, pourOf, readTextJson, timesOf } from './to-plain';
export type { FromText } from './to-plain';
export type { Found } from './draft';

const POURED: readonly Rule<Draft>[] = [...LEFT_OUT, ...DONE, ...FACTS, ...POURS, ...NAMES, ...BARE, ...LAST];
const AT_ONCE: readonly Rule<Draft>[] = [...LEFT_OUT, ...FACTS, ...DONE, ...IMMERSED, ...NAMES, ...BARE];

/** Nobody's recipe is longer, characters: what comes after is marked, and not read. */
const LONGEST = 8_000;

/** @param source any text; nothing is thrown. */
export function readRecipeText(source: string): ReadText {
  const line = lineOf(source.slice(0, LONGEST));
  const method = methodIn(line);
  const isPoured = method === undefined || METHODS[method].drawdownExponent !== null;
  const draft = newDraft(method, isPoured);
  draft.inOunces = line.tokens.some(
    (token) => token.is === 'figure' && token.inOunces && token.kind === 'mass' && token.lo > 60,
  );
  const named = readName(line, draft);
  const taken = readLine(line, isPoured ? POURED : AT_ONCE, draft);
  for (let token = 0; token < named; token += 1) taken[token] = 'used';
  endsAlone(line, draft, taken);
  markLost(draft, taken);
  const read = settle(draft, leavesAmounts(line, taken));
  read.unread = unreadOf(line, taken);
  const beyond = source.slice(LONGEST).trim();
  if (beyond !== '') read.unread.push(beyond.slice(0, 80));
  return read;
}

export type KnownOfSteps = {
  method: MethodId;
  /** Whether a figure without a unit is in ounces. */
  inOunces: boolean;
  /** For “2x” and “60 %”. */
  doseG?: number;
  waterG?: number;
};
export type ReadSteps = Pick<
  ReadText,
  'pours' | 'stirs' | 'steepS' | 'flameOffS' | 'plungeS' | 'pressForS' | 'unread'
>;

/** Reads pours, stirs and their times alone, where nothing else can be meant: the first figure of a poured brew is a pour, and no dose. */
export function readSteps(source: string, { method, inOunces, doseG, waterG }: KnownOfSteps): ReadSteps {
  const line = lineOf(source.slice(0, LONGEST));
  const isPoured = METHODS[method].drawdownExponent !== null;
  const draft = newDraft(method, isPoured);
  draft.inOunces = inOunces;
  const nowhere = { from: 0, to: 0 };
  if (doseG !== undefined) draft.facts.doseG = [{ value: doseG, ...nowhere }];
  if (waterG !== undefined) draft.facts.waterG = [{ value: waterG, ...nowhere }];
  if (isPoured) draft.next = { isNamed: true };
  const taken = readLine(line, isPoured ? POURS : IMMERSED, draft);
  markLost(draft, taken);
  const { pours, stirs, steepS, flameOffS, plungeS, pressForS } = settle(draft, false);
  const times = { steepS, flameOffS, plungeS, pressForS };
  return {
    pours,
    stirs,
    ...Object.fromEntries(Object.entries(times).filter(([, value]) => value !== undefined)),
    unread: unreadOf(line, taken),
  };
}

/** No poured brew is done sooner, seconds. */
const LEAST_S = 90;

/** A time that stands last, by itself and behind all pours, is when it is done. */
function endsAlone({ tokens }: Line, draft: Draft, taken: Use[]): void {
  const { waiting, next, pours } = draft;
  const lastS = pours.at(-1)?.atS;
  const isPoured = lastS !== undefined || draft.series.length > 0;
  if (!waiting || next.atS === undefined || draft.facts.doneS || !isPoured) return;
  const isLast = tokens.slice(waiting.toToken).every(({ is }) => is === 'stop');
  const before = tokens[waiting.fromToken - 1];
  if (
    !isLast ||
    before?.is !== 'stop' ||
    !/[.¶]/.test(before.text) ||
    middle(next.atS) <= middle(lastS ?? LEAST_S)
  )
    return;
  draft.facts.doneS = [
    { value: next.atS, from: tokens[waiting.fromToken]!.from, to: tokens[waiting.toToken - 1]!.to },
  ];
  draft.found.push({
    field: 'doneS',
    from: tokens[waiting.fromToken]!.from,
    to: tokens[waiting.toToken - 1]!.to,
  });
  draft.waiting = null;
  taken.fill('used', waiting.fromToken, waiting.toToken);
}

/** A time that nothing came for is not understood. */
function markLost({ lost, waiting }: Draft, taken: Use[]): void {
  for (const { fromToken, toToken } of waiting ? [...lost, waiting] : lost)
    taken.fill('left', fromToken, toToken);
}

function methodIn({ text }: Line): MethodId | undefined {
  const plain = text.replace(/than (?:for |in )?(?:a |the |my |your )?(?:\S+ ){1,2}/g, ' ');
  const found = METHOD_NAMES.map(([pattern, method]) => ({
    method,
    at: new RegExp(`(?:^| )${pattern}`).exec(plain)?.index ?? -1,
  })).filter(({ at }) => at >= 0);
  // An air press is no press, and a word before another's brewer says more than one behind it.
  const [earliest] = found.toSorted((a, b) => a.at - b.at);
  if (earliest) return earliest.method;
  if (PRESS_NOUN.test(plain)) return 'press';
  return /(?:^| )cloth /.test(plain) ? 'sock' : undefined;
}

const PLAIN_WORDS =
  /^(?:for|the|a|an|of|and|with|in|on|light|medium|dark|roast|roasts|roasted|coffee|coffees|water|pours|filter|done|serves|brewer|dose|recipe|ones|in|temp|grind|cup|cups|paper|cloth|metal|one|two|three|four)$/;

/** What stands on the first of several lines, has no figures and is more than a method's name, is what it is called. Gives how many tokens it takes. */
function readName(line: Line, draft: Draft): number {
  const ends = line.tokens.findIndex((token) => token.is === 'stop' && token.text === '¶');
  if (ends < 1) return 0;
  const head = line.tokens.slice(0, ends);
  const hasFigure = head.some(
    (token) => token.is === 'figure' && /\d/.test(line.source.slice(token.from, token.to)),
  );
  if (
    hasFigure ||
    head.length > 8 ||
    head.some(({ is, ...token }) => is === 'stop' && (token as { text: string }).text === '|')
  )
    return 0;
  const words = head.flatMap((token) => (token.is === 'word' ? [token.text] : []));
  const text = `${words.join(' ')} `;
  const other = [...METHOD_NAMES, ...FILTERS].reduce(
    (left, [pattern]) => left.replaceAll(new RegExp(`(?:^| )${pattern}`, 'g'), ' '),
    ` ${text}`,
  );
  const own = other.split(' ').filter((word) => word !== '' && word !== 'press' && !PLAIN_WORDS.test(word));
  if (own.length === 0 || /[.:]$/.test(String((head.at(-1) as { text?: string }).text ?? ''))) return 0;
  const match = { line, fromToken: 0, toToken: ends } as Match;
  const { from, to } = placeOf(match);
  const name = line.source
    .slice(from, to)
    .replace(/^[#*\s]+/, '')
    .trim();
  state(draft, 'name', name === name.toUpperCase() ? name[0] + name.slice(1).toLowerCase() : name, match);
  // What else it says (its brewer) is read as well.
  return words.length === own.length ? ends : head.findIndex(({ is }) => is !== 'figure');
}

function unreadOf({ tokens, source }: Line, taken: readonly Use[]): string[] {
  const parts: string[] = [];
  let from: Token | null = null;
  let to: Token | null = null;
  const close = () => {
    if (from && to) parts.push(source.slice(from.from, to.to));
    from = to = null;
  };
  tokens.forEach((token, n) => {
    if (taken[n] === 'used' || (token.is === 'stop' && token.text !== '–')) return close();
    const counts =
      (token.is === 'figure' && !token.isWeak) || (token.is === 'word' && CRAFT_WORDS.has(token.text));
    if (!counts) return;
    from ??= token;
    // A bare figure with what it counts: “24 clicks”.
    const next = tokens[n + 1];
    const isCounted =
      token.is === 'figure' && token.kind === 'bare' && next?.is === 'word' && next.text.length > 3;
    to = isCounted && taken[n + 1] !== 'used' ? next : token;
  });
  close();
  return [...new Set(parts)];
}

/** Whether an amount that nobody used stands in the text: then a pour may be missing. */
const leavesAmounts = ({ tokens }: Line, taken: readonly Use[]): boolean =>
  tokens.some(
    (token, n) =>
      taken[n] === 'left' &&
      token.is === 'figure' &&
      (token.kind === 'mass' ||
        token.kind === 'volume' ||
        (token.kind === 'bare' && token.lo >= 30 && !(token.lo >= 70 && token.lo <= 100))),
  );
