/**
 * The text as one line of words, stops and figures, and rules that read it from left to right. A rule is written as a pattern of
 * that line; the first that fits where the reader stands takes what it covers, and what no rule takes is left over.
 */
import { tokensOf, type Figure, type FigureKind, type Token } from './figures';

const LETTER: Record<FigureKind, string> = {
  mass: 'g',
  volume: 'v',
  temperature: 'c',
  span: 's',
  clock: 'k',
  ratio: 'r',
  percent: 'p',
  times: 'x',
  perLitre: 'l',
  bare: 'n',
};

/** What a pattern calls a figure of one of several kinds. */
const KINDS: Record<string, string> = {
  // An amount of water or coffee, as far as it is one for sure; or any that a pour may have.
  g: 'gv',
  a: 'gvnpx',
  gn: 'gvn',
  // A time.
  t: 'skn',
  v: 'v',
  s: 's',
  k: 'k',
  // A temperature.
  c: 'c',
  cn: 'cn',
  // A count.
  n: 'nox',
  r: 'r',
  l: 'l',
  p: 'p',
  any: 'gvcskrpxlno',
};

/** Words between those that count. */
const FILLERS =
  "the|a|an|of|it|its|it's|this|that|that's|about|around|roughly|approx|approximately|some|somewhere|with|w|is|are|be|at|by|in|on|me|my|your|our|you|i|we|and|just|then|so|ca|circa|exactly|near|enough|what|er|um|to|now|i'll|we'll|i'm|goes|go|until|till";

export type Line = { text: string; tokens: readonly Token[]; starts: readonly number[]; source: string };

export function lineOf(source: string): Line {
  const tokens = tokensOf(source);
  const starts: number[] = [];
  let text = '';
  for (const [n, token] of tokens.entries()) {
    starts.push(text.length);
    text += `${token.is === 'figure' ? `<${token.isWeak ? 'o' : LETTER[token.kind]}${n}>` : token.text} `;
  }
  return { text, tokens, starts, source };
}

export type Match = {
  /** The figure that the pattern names; without a name, by its kind's letters. */
  figure: (name: string) => Figure | undefined;
  words: (name: string) => string | undefined;
  /** The tokens that it covers: from, up to. */
  fromToken: number;
  toToken: number;
  line: Line;
};

export type Rule<State> = {
  pattern: RegExp;
  /** What the first token of a match can be: most rules are not tried at most tokens. */
  begins: RegExp;
  /** False where it does not fit after all; `pass` where what it covers is left over, and nothing in it is to be read. */
  read: (state: State, match: Match) => boolean | 'pass' | void;
};

/** `{g:dose}` is a figure that is called dose; `_` any words that say nothing; each word is followed by its space. */
export function rule<State>(pattern: string, read: Rule<State>['read']): Rule<State> {
  const source = compiled(pattern);
  return { pattern: new RegExp(source, 'y'), begins: new RegExp(`^(?:${headsOf(source).join('|')})$`), read };
}

/** No rule goes on over more words than this: what people say between two that count is short. */
const MOST_WORDS = 9;

function compiled(pattern: string): string {
  return (
    pattern
      .replace(
        /\{(\w+):?(\w*)\}/g,
        (_, kinds: string, name: string) => `(?<${name || kinds}><[${KINDS[kinds]!}]\\d+>)`,
      )
      // “One” is mostly no number, and is kept apart.
      .replace(/\bone(?= |\||\))/g, '<o\\d+>')
      .replaceAll('_ ', `(?:(?:${FILLERS}) )*`)
      .replaceAll(')*', `){0,${MOST_WORDS}}`)
      .replaceAll(')+', `){1,${MOST_WORDS}}`)
  );
}

/** The first words that a pattern can begin with, as patterns of one word each. */
function headsOf(source: string): string[] {
  const heads: string[] = [];
  let at = 0;
  while (at < source.length) {
    if (source[at] !== '(') return [...heads, firstWord(source, at)];
    const closes = closing(source, at);
    const [opening] = /^\(\?(?::|=|!|<\w+>)/.exec(source.slice(at, at + 40))!;
    const [repeats] = /^(?:[?*+]|\{\d+,\d+\})?/.exec(source.slice(closes + 1, closes + 9))!;
    if (!/[=!]$/.test(opening)) {
      heads.push(...alternatives(source.slice(at + opening.length, closes)).flatMap(headsOf));
      if (!/^(?:[?*]|\{0)/.test(repeats)) return heads;
    }
    at = closes + 1 + repeats.length;
  }
  return heads;
}

function firstWord(source: string, at: number): string {
  const ends = at + /^(?:\\.|[^\\( ])*/.exec(source.slice(at))![0].length;
  // Where the word may go on, any that begins so.
  return source[ends] === ' ' && source[ends + 1] !== '?'
    ? source.slice(at, ends)
    : `${source.slice(at, ends)}\\S*`;
}

/** Where the group that opens here closes. */
function closing(source: string, at: number): number {
  let depth = 0;
  for (let next = at; next < source.length; next += 1) {
    if (source[next] === '\\') next += 1;
    else if (source[next] === '[') next = source.indexOf(']', next);
    else if (source[next] === '(') depth += 1;
    else if (source[next] === ')' && (depth -= 1) === 0) return next;
  }
  return source.length;
}

function alternatives(source: string): string[] {
  const made: string[] = [];
  let from = 0;
  for (let next = 0; next < source.length; next += 1) {
    if (source[next] === '\\') next += 1;
    else if (source[next] === '[') next = source.indexOf(']', next);
    else if (source[next] === '(') next = closing(source, next);
    else if (source[next] === '|') {
      made.push(source.slice(from, next));
      from = next + 1;
    }
  }
  return [...made, source.slice(from)];
}

/** A token is used for something, passed over on purpose, or left. */
export type Use = 'used' | 'passed' | 'left';

/** Reads the line by rules; gives for each token what became of it. */
export function readLine<State>(line: Line, rules: readonly Rule<State>[], state: State): Use[] {
  const taken = line.tokens.map((): Use => 'left');
  const tried = new Map<string, Rule<State>[]>();
  const rulesAt = (token: number) => {
    const key = line.text
      .slice(line.starts[token], line.starts[token + 1])
      .trim()
      .replace(/^<(.).*/, '<$10>');
    const known = tried.get(key) ?? rules.filter(({ begins }) => begins.test(key));
    tried.set(key, known);
    return known;
  };
  for (let token = 0; token < line.tokens.length;) {
    token = readAt(line, token, rulesAt(token), state, taken) ?? token + 1;
  }
  return taken;
}

function readAt<State>(
  line: Line,
  token: number,
  rules: readonly Rule<State>[],
  state: State,
  taken: Use[],
): number | null {
  for (const { pattern, read } of rules) {
    pattern.lastIndex = line.starts[token]!;
    const found = pattern.exec(line.text);
    if (!found || found[0] === '') continue;
    const ends = pattern.lastIndex;
    let toToken = token;
    while (toToken < line.tokens.length && line.starts[toToken]! < ends) toToken += 1;
    const match: Match = {
      figure: (name) => figureOf(line, found.groups?.[name]),
      words: (name) => found.groups?.[name]?.trim(),
      fromToken: token,
      toToken,
      line,
    };
    const does = read(state, match);
    if (does === false) continue;
    taken.fill(does === 'pass' ? 'passed' : 'used', token, toToken);
    return toToken;
  }
  return null;
}

function figureOf({ tokens }: Line, text: string | undefined): Figure | undefined {
  const token = text === undefined ? undefined : tokens[Number(text.slice(2, -1))];
  return token?.is === 'figure' ? token : undefined;
}
