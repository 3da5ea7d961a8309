/**
 * A text in its words, stops and figures. A figure knows what it measures, where its unit says so, and where it stands in the text.
 */
import { G_PER_OZ, ML_PER_FL_OZ, fahrenheitToCelsius } from '../../units';
import { spokenNumber } from './spoken-numbers';

/** What a figure measures: grams, millilitres, °C, seconds, a reading of the clock, 1:n, per cent, times, grams a litre; or nothing that is said. */
export type FigureKind =
  | 'mass'
  | 'volume'
  | 'temperature'
  | 'span'
  | 'clock'
  | 'ratio'
  | 'percent'
  | 'times'
  | 'perLitre'
  | 'bare';

export type Figure = {
  is: 'figure';
  kind: FigureKind;
  /** Grams, millilitres, °C, seconds, water to one of coffee; lowest and highest where a range is said. */
  lo: number;
  hi: number;
  /** With a plus before it. */
  plus: boolean;
  /** Written or said in ounces: what stands bare beside it is in ounces too. */
  inOunces?: true;
  /** A clock that may as well be a ratio (1:15), and a bare number that may be a clock (“one forty”): the other reading. */
  ratio?: number;
  clockS?: number;
  /** “one”, which is mostly no number. */
  isWeak?: true;
  from: number;
  to: number;
};
export type Word = { is: 'word'; text: string; from: number; to: number };
export type Stop = { is: 'stop'; text: string; from: number; to: number };
export type Token = Figure | Word | Stop;

type Unit = { kind: FigureKind; per: (value: number) => number; inOunces?: true };
const as = (kind: FigureKind, factor = 1): Unit => ({ kind, per: (value) => value * factor });

/** In this order: the longer before the shorter. */
const UNITS: readonly [RegExp, Unit][] = [
  [
    /[ \t-]{0,4}(?:g|gr|grams?)[ \t]{0,4}(?:\/|per|a|to the|to a|for a|in a|for each|to each)[ \t]{0,4}(?:l|lit(?:re|er))\b/iy,
    as('perLitre'),
  ],
  [
    /[ \t-]{0,4}(?:fluid|fl\.?)[ \t-]{0,4}(?:ounces?|oz)\b\.?/iy,
    { ...as('volume', ML_PER_FL_OZ), inOunces: true },
  ],
  [/[ \t-]{0,4}(?:ounces?|oz)\b\.?/iy, { ...as('mass', G_PER_OZ), inOunces: true }],
  [/[ \t-]{0,4}(?:grammes?|grams?|gms?|gr|g)\b/iy, as('mass')],
  [/[ \t-]{0,4}(?:millilit(?:re|er)s?|mls?|cc)\b/iy, as('volume')],
  [/[ \t-]{0,4}cl\b/iy, as('volume', 10)],
  [/[ \t-]{0,4}(?:lit(?:re|er)s?|l)\b/iy, as('volume', 1000)],
  [
    /[ \t]{0,4}(?:°|º|degrees?|deg\.?)?[ \t]{0,4}(?:fahrenheit|f)\b/iy,
    { kind: 'temperature', per: fahrenheitToCelsius },
  ],
  [/[ \t]{0,4}(?:°|º|degrees?|deg\.?)?[ \t]{0,4}(?:celsius|centigrade|c)\b/iy, as('temperature')],
  [
    /[ \t]{0,4}(?:°|º|degrees?\b|deg\b\.?)/iy,
    { kind: 'temperature', per: (value) => (value > 110 ? fahrenheitToCelsius(value) : value) },
  ],
  [/[ \t-]{0,4}(?:minutes?|mins?|m)\b/iy, as('span', 60)],
  [/[ \t-]{0,4}(?:seconds?|secs?|s)\b/iy, as('span')],
  [/[ \t]{0,4}(?:%|per ?cent\b)/iy, as('percent')],
  [/[ \t]{0,4}(?:×|x(?!\p{L})|times\b)/iuy, as('times')],
  // “93ish” is 93.
  [/-?ish\b/iy, as('bare')],
];

/** In “41,0:36” the comma parts two figures. */
const DIGITS = /\d{1,9}(?:[.,]\d{1,6}(?![\d]*[:'’]\d))?/y;
const WORD = /\p{L}[\p{L}'’]{0,40}|\d{1,9}\p{L}{1,20}/uy;

/** All tokens of a text, in their order. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.length) {
    const found = figureAt(text, at) ?? wordAt(text, at) ?? stopAt(text, at);
    if (found) tokens.push(found);
    at = found ? found.to : at + 1;
  }
  return rangesOf(withoutMarks(tokens));
}

/** The number of a line in a list is a stop, and no figure. */
function withoutMarks(tokens: readonly Token[]): Token[] {
  return tokens.map((token, n) => {
    const [before, after] = [tokens[n - 1], tokens[n + 1]];
    const isMark =
      token.is === 'figure' &&
      token.kind === 'bare' &&
      (before === undefined || (before.is === 'stop' && before.text === '¶')) &&
      ((after?.is === 'stop' && /[.)]/.test(after.text)) ||
        // The first column of a table.
        (after?.is === 'figure' && after.kind === 'clock' && token.lo <= 20));
    return isMark ? { is: 'stop', text: '.', from: token.from, to: token.to } : token;
  });
}

function matchAt(pattern: RegExp, text: string, at: number): RegExpExecArray | null {
  pattern.lastIndex = at;
  return pattern.exec(text);
}

const CLOCK =
  /(\d{1,2})\s?(?::|['’′]|m(?:in)?\.?\s?(?=\d{2}\b))\s?(\d{2})(?:["”″]|\s?s(?:ec)?\b)?(?![\d.,]*\d)/iy;
const RATIO = [
  /1\s*[:/]\s*(\d{1,2}(?:[.,]\d+)?)(?!\d)/y,
  /(\d{1,2}(?:[.,]\d+)?)\s*:\s*1(?![\d.,]*\d)/y,
  /1\s+(?:to|in)\s+(\d{1,2}(?:[.,]\d+)?)(?!\d|\s*(?:s|secs?|seconds?|mins?|minutes?|g|ml)\b)/iy,
  /(\d{1,2}(?:[.,]\d+)?)\s+to\s+1(?![\d.,:]*\d)\b/iy,
];
const RATIOS = { min: 6, max: 25 };
const MIXED = /(\d+)?\s?(½|¼|¾|1\/2|1\/4|3\/4)/y;
const PARTS: Record<string, number> = {
  '½': 0.5,
  '1/2': 0.5,
  '¼': 0.25,
  '1/4': 0.25,
  '¾': 0.75,
  '3/4': 0.75,
};

function figureAt(text: string, at: number): Figure | null {
  const before = text[at - 1];
  if (before !== undefined && /[\p{L}\d]/u.test(before) && /[\d\p{L}]/u.test(text[at]!)) return null;
  if (matchAt(ORDINAL, text, at)) return null;
  if (/[\d+½¼¾]/.test(text[at]!)) return clockAt(text, at) ?? ratioAt(text, at) ?? digitsAt(text, at);
  return /\p{L}/u.test(text[at]!) ? spokenAt(text, at) : null;
}

function figure(
  kind: FigureKind,
  value: number,
  from: number,
  to: number,
  more: Partial<Figure> = {},
): Figure {
  return { is: 'figure', kind, lo: value, hi: value, plus: false, from, to, ...more };
}

function clockAt(text: string, at: number): Figure | null {
  const found = matchAt(CLOCK, text, at);
  if (!found || Number(found[2]) > 59) return null;
  const [all, minutes, seconds] = found;
  const mayBeRatio = minutes === '1' && Number(seconds) >= RATIOS.min && Number(seconds) <= RATIOS.max;
  return figure('clock', 60 * Number(minutes) + Number(seconds), at, at + all.length, {
    ...(mayBeRatio && all.includes(':') ? { ratio: Number(seconds) } : {}),
  });
}

function ratioAt(text: string, at: number): Figure | null {
  for (const pattern of RATIO) {
    const found = matchAt(pattern, text, at);
    const value = found ? number(found[1]!) : 0;
    if (found && value >= RATIOS.min && value <= RATIOS.max)
      return figure('ratio', value, at, at + found[0].length);
  }
  return null;
}

const number = (digits: string): number => Number(digits.replace(',', '.'));

function digitsAt(text: string, at: number): Figure | null {
  const sign = matchAt(/\+\s?/y, text, at);
  const from = at + (sign?.[0].length ?? 0);
  const mixed = matchAt(MIXED, text, from);
  const plain = matchAt(DIGITS, text, from);
  if (!mixed && !plain) return null;
  const read = mixed ?? plain!;
  const value = mixed ? Number(mixed[1] ?? 0) + PARTS[mixed[2]!]! : number(thousands(plain![0]));
  return withUnit(text, value, at, from + read[0].length, sign ? { plus: true } : {});
}

/** In “1,000” the comma stands between thousands. */
const thousands = (digits: string): string =>
  /^\d{1,2},\d{3}$/.test(digits) ? digits.replace(',', '') : digits;

function withUnit(text: string, value: number, from: number, to: number, more: Partial<Figure> = {}): Figure {
  for (const [pattern, { kind, per, inOunces }] of UNITS) {
    const unit = matchAt(pattern, text, to);
    if (!unit) continue;
    const ends = to + unit[0].length;
    const longer = kind === 'span' ? moreSeconds(text, ends) : null;
    const sum = per(value) + (longer?.seconds ?? 0);
    return figure(kind, sum, from, longer?.to ?? ends, { ...more, ...(inOunces ? { inOunces } : {}) });
  }
  return figure('bare', value, from, to, more);
}

/** “2nd” and “3rd” are words. */
const ORDINAL = /\d{1,2}(?:st|nd|rd|th)\b/iy;

/** “2 min 30 s”, “a minute ten”, “a minute and a half”. */
function moreSeconds(text: string, at: number): { seconds: number; to: number } | null {
  const half = matchAt(/[ \t]+and[ \t]+a[ \t]+half\b/iy, text, at);
  if (half) return { seconds: 30, to: at + half[0].length };
  const gap = matchAt(/\.?(?:[ \t]+and)?[ \t]{1,4}/iy, text, at);
  if (!gap) return null;
  const from = at + gap[0].length;
  const digits = matchAt(/(\d{1,2})(?![\d.,:'’]*\d)/y, text, from);
  const said = digits ? { value: Number(digits[1]), to: from + digits[0].length } : spokenValue(text, from);
  if (!said || said.value >= 60 || said.value < 5) return null;
  const unit = matchAt(/\s*(?:seconds?|secs?|s)\b/iy, text, said.to);
  const isOther =
    !unit && (gap[0].trim() !== '' || UNITS.some(([pattern]) => matchAt(pattern, text, said.to)));
  return isOther ? null : { seconds: said.value, to: said.to + (unit?.[0].length ?? 0) };
}

function spokenValue(
  text: string,
  at: number,
): { value: number; clockS?: number; to: number; words: number } | null {
  const words: string[] = [];
  const ends: number[] = [];
  for (let next = at; words.length < 9;) {
    const found = matchAt(/[\s-]*(\p{L}+)/uy, text, next);
    if (!found || (words.length > 0 && !/^[\s-]+/.test(found[0]))) break;
    words.push(found[1]!.toLowerCase());
    ends.push((next += found[0].length));
  }
  const said = spokenNumber(words, 0);
  if (!said) return null;
  const { value, clockS, words: count } = said;
  return { value, to: ends[count - 1]!, words: count, ...(clockS === undefined ? {} : { clockS }) };
}

function spokenAt(text: string, at: number): Figure | null {
  if (/\bat\s+$/i.test(text.slice(Math.max(0, at - 4), at)) && matchAt(/once\b/iy, text, at)) return null;
  const often = matchAt(
    /(once|twice|thrice)\b(?!\s+(?:it|the|you|they|that|all|everything|we|i|more)\b)/iy,
    text,
    at,
  );
  if (often) {
    const times = ['once', 'twice', 'thrice'].indexOf(often[0].toLowerCase()) + 1;
    return figure('times', times, at, at + often[0].length);
  }
  const aMinute = matchAt(/an?\s+(?=minutes?\b|lit(?:re|er)\b)/iy, text, at);
  if (aMinute) return withUnit(text, 1, at, at + aMinute[0].length - 1);
  // “For this one thirty grams”: it is thirty.
  const isPointedAt = /\b(?:this|that|each|every|other|last|first|easy|which)\s+$/i.test(
    text.slice(Math.max(0, at - 12), at),
  );
  if (isPointedAt && matchAt(/one\b/iy, text, at)) return figure('bare', 1, at, at + 3, { isWeak: true });
  return spokenFigure(text, at);
}

function spokenFigure(text: string, at: number): Figure | null {
  const said = spokenValue(text, at);
  if (!said) return null;
  const { value, clockS, to, words } = said;
  const isRatio = matchAt(/\s+to\s+one\b/iy, text, to);
  if (isRatio && value >= RATIOS.min && value <= RATIOS.max)
    return figure('ratio', value, at, to + isRatio[0].length);
  if (value === 1) {
    const ratio = matchAt(/\s+(?:to|in)\s+/iy, text, to);
    const other = ratio ? spokenValue(text, to + ratio[0].length) : null;
    if (other && other.value >= RATIOS.min && other.value <= RATIOS.max)
      return figure('ratio', other.value, at, other.to);
  }
  return withUnit(text, value, at, to, {
    ...(clockS === undefined ? {} : { clockS }),
    ...(value === 1 && words === 1 ? { isWeak: true } : {}),
  });
}

const KEEPS_ITS_S = /^(?:it|that|what|whatever|there|here|who|he|she|let|everything|everybody|nobody)'s$/;

function wordAt(text: string, at: number): Word | null {
  const arrow = matchAt(/(?:->|=>|→)/y, text, at);
  if (arrow) return { is: 'word', text: 'to', from: at, to: at + arrow[0].length };
  const found = matchAt(WORD, text, at);
  if (!found) return null;
  const word = found[0].toLowerCase().replaceAll('’', "'");
  // “The paper's the thick one”: the word itself counts.
  const plain = KEEPS_ITS_S.test(word) ? word : word.replace(/'s$/, '');
  return { is: 'word', text: plain, from: at, to: at + found[0].length };
}

function stopAt(text: string, at: number): Stop | null {
  const char = text[at]!;
  // Inside a word it parts nothing: medium-fine.
  if (char === '-' && /[\p{L}\d]/u.test(text[at - 1] ?? '') && /\p{L}/u.test(text[at + 1] ?? '')) return null;
  // “w/” is “with”.
  if (char === '/' && /^\W?w$/i.test(text.slice(Math.max(0, at - 2), at))) return null;
  const stop = { is: 'stop', from: at, to: at + 1 } as const;
  if (char === '\n' || char === '|') return { ...stop, text: char === '\n' ? '¶' : '|' };
  // A row of dots leads to what stands behind it.
  const dots = matchAt(/\.{2,200}/y, text, at);
  if (dots) return { ...stop, text: ':', to: at + dots[0].length };
  if ('.!?;'.includes(char)) return { ...stop, text: '.' };
  if ('–—-/'.includes(char)) return { ...stop, text: '–' };
  return ',:()'.includes(char) ? { ...stop, text: char } : char === '@' ? { ...stop, text: '@' } : null;
}

/** Two figures of which a range is made: “92 to 94 °C”, “three minutes and three twenty”, “eighty-seven, eighty-eight”. */
function rangesOf(tokens: readonly Token[]): Token[] {
  const made: Token[] = [];
  for (let at = 0; at < tokens.length; at += 1) {
    const one = tokens[at]!;
    const joined = one.is === 'figure' ? rangeAt(tokens, at, one) : null;
    made.push(joined ? joined.figure : one);
    at += joined ? joined.more : 0;
  }
  return made;
}

function rangeAt(tokens: readonly Token[], at: number, one: Figure): { figure: Figure; more: number } | null {
  const joins: string[] = [];
  let next = at + 1;
  for (; next <= at + 3 && tokens[next] && tokens[next]!.is !== 'figure'; next += 1)
    joins.push((tokens[next] as Word | Stop).text);
  const two = tokens[next];
  if (!two || two.is !== 'figure' || two.plus || joins.length === 0) return null;
  const by = joins.join(' ');
  const before = tokens
    .slice(Math.max(0, at - 2), at)
    .map((token) => (token.is === 'figure' ? '' : token.text));
  const isBetween = before.includes('between') || before.includes('from');
  const after = tokens[next + 1];
  // “or eighty-eight if it is dark” is no range.
  if (
    after?.is === 'word' &&
    (after.text === 'if' || (/^(?:for|when|with)$/.test(after.text) && /or/.test(by)))
  )
    return null;
  const ways = [
    '–',
    'to',
    'or',
    ',',
    ', up to',
    'up to',
    ', or',
    'till',
    ', maybe',
    'maybe',
    ...(isBetween ? ['and'] : []),
  ];
  if (!ways.includes(by)) return null;
  const found = spanned(one, two, by.startsWith(',') && by !== ', up to');
  return found ? { figure: found, more: next - at } : null;
}

/** How far apart the ends of a range may be, as a factor. */
const WIDEST: Partial<Record<FigureKind, number>> = {
  mass: 1.35,
  volume: 1.35,
  span: 2.1,
  clock: 1.6,
  temperature: 1.2,
  times: 1.6,
  ratio: 1.2,
};

function spanned(one: Figure, two: Figure, byComma: boolean): Figure | null {
  const range = (kind: FigureKind, lo: number, hi: number): Figure | null =>
    hi > lo && hi <= lo * (WIDEST[kind] ?? 1.1) && !(byComma && hi > lo * 1.12)
      ? {
          is: 'figure',
          kind,
          lo,
          hi,
          plus: false,
          from: one.from,
          to: two.to,
          ...(two.inOunces ? { inOunces: true } : {}),
        }
      : null;
  const said = (value: Figure) => value.kind === 'span' || value.kind === 'clock';
  if (one.kind === 'bare' && one.clockS !== undefined && said(two)) return range('clock', one.clockS, two.hi);
  if (said(one) && two.kind === 'bare' && two.clockS !== undefined) return range('clock', one.lo, two.clockS);
  if (said(one) && said(two)) return one.lo === 0 ? null : range(one.kind, one.lo, two.hi);
  if (one.kind === two.kind) {
    if (one.kind === 'bare') return one.lo > 20 ? range('bare', one.lo, two.hi) : null;
    return one.kind === 'percent' ? null : range(one.kind, one.lo, two.hi);
  }
  // The unit stands behind the second alone; a minute is 60 of what the first says.
  if (one.kind !== 'bare' || two.kind === 'clock' || two.kind === 'ratio' || two.kind === 'percent')
    return null;
  const factor =
    two.kind === 'span' && two.lo >= 60 && one.lo < 15
      ? 60
      : two.inOunces
        ? two.kind === 'mass'
          ? G_PER_OZ
          : ML_PER_FL_OZ
        : 1;
  const lo = two.kind === 'temperature' && one.lo > 110 ? fahrenheitToCelsius(one.lo) : one.lo * factor;
  return range(two.kind, lo, two.hi);
}
