/**
 * A text of a recipe in its clauses, and a clause in its figures and words.
 */
import { G_PER_OZ, ML_PER_FL_OZ, fahrenheitToCelsius } from '../units';

export type Token =
  | {
      is:
        | 'mass'
        | 'volume'
        | 'liquid ounces'
        | 'clock'
        | 'span'
        | 'temperature'
        | 'ratio'
        | 'times'
        | 'percent'
        | 'per litre'
        | 'number';
      value: number;
      plus: boolean;
    }
  | { is: 'word'; text: string };
export type FigureKind = Exclude<Token, { is: 'word' }>['is'];

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
/** In this order: the longer way of writing first. */
const PATTERNS: readonly [FigureKind, RegExp, (parts: RegExpExecArray) => number][] = [
  // With whole seconds it may as well be a time: the clause decides (`ratioOf`).
  ['ratio', /1\s*:\s*(\d{1,2}[.,]\d|\d)(?!\d)/y, ([, n]) => num(n)],
  ['clock', /(\d{1,2}):(\d{2})(?!\d)/y, ([, m, s]) => num(m) * 60 + num(s)],
  ['clock', /(\d{1,2})['’′](\d{2})["”″]?(?!\d)/y, ([, m, s]) => num(m) * 60 + num(s)],
  [
    'per litre',
    new RegExp(String.raw`(${NUMBER})\s*(?:g|gr|grams?)\s*(?:/|per|a|each)\s*(?:l|lit(?:re|er))\b`, 'iy'),
    ([, n]) => num(n),
  ],
  [
    'temperature',
    new RegExp(String.raw`(${NUMBER})\s*(?:°|º|degrees?|deg\.?)?\s*(?:c|celsius|centigrade)\b`, 'iy'),
    ([, n]) => num(n),
  ],
  [
    'temperature',
    new RegExp(String.raw`(${NUMBER})\s*(?:°|º|degrees?|deg\.?)?\s*(?:f|fahrenheit)\b`, 'iy'),
    ([, n]) => fahrenheitToCelsius(num(n)),
  ],
  [
    'temperature',
    new RegExp(String.raw`(${NUMBER})\s*(?:°|º|degrees?\b|deg\b)`, 'iy'),
    ([, n]) => (num(n) > 110 ? fahrenheitToCelsius(num(n)) : num(n)),
  ],
  [
    'span',
    /(\d+)\s*(?:min(?:ute)?s?|m)\b\.?\s*(?:and\s*)?(\d+)\s*(?:s(?:ec(?:ond)?s?)?)\b/iy,
    ([, m, s]) => num(m) * 60 + num(s),
  ],
  ['span', new RegExp(String.raw`(${NUMBER})\s*(?:min(?:ute)?s?)\b`, 'iy'), ([, n]) => num(n) * 60],
  ['span', /(\d+)\s*(?:s|secs?|seconds?)\b/iy, ([, n]) => num(n)],
  [
    'liquid ounces',
    new RegExp(String.raw`(${NUMBER})\s*(?:fl\.?\s*oz|fluid ounces?)\b\.?`, 'iy'),
    ([, n]) => num(n) * ML_PER_FL_OZ,
  ],
  ['mass', new RegExp(String.raw`(${NUMBER})\s*(?:oz|ounces?)\b`, 'iy'), ([, n]) => num(n) * G_PER_OZ],
  ['volume', new RegExp(String.raw`(${NUMBER})\s*(?:ml|cc|millilit(?:re|er)s?)\b`, 'iy'), ([, n]) => num(n)],
  ['volume', new RegExp(String.raw`(${NUMBER})\s*(?:l|lit(?:re|er)s?)\b`, 'iy'), ([, n]) => num(n) * 1000],
  ['mass', new RegExp(String.raw`(${NUMBER})\s*(?:g|gr|grams?|grammes?)\b\.?`, 'iy'), ([, n]) => num(n)],
  ['times', new RegExp(String.raw`(${NUMBER})\s*(?:x|×|times)(?![a-z])`, 'iy'), ([, n]) => num(n)],
  ['percent', new RegExp(String.raw`(${NUMBER})\s*(?:%|per ?cent)`, 'iy'), ([, n]) => num(n)],
  ['number', new RegExp(NUMBER, 'y'), ([n]) => num(n)],
];
const num = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));

/** Lines, and what stands between commas, semicolons, full stops and arrows; a decimal comma parts nothing. */
export const clausesOf = (text: string): string[] =>
  text
    // A long gap would be tried at each of its lengths by every pattern.
    .replace(/[^\S\n]+/g, ' ')
    .split(/\n|;|,(?!\d)|,(?=\d{1,2}:\d{2})|\.(?=\s|$)|→|->|=>|\||•|\s[-\u2013]\s(?!\d{1,2}:)|\bthen\b/i)
    .map((clause) => clause.trim())
    .filter((clause) => /[\p{L}\p{N}]/u.test(clause));

export function tokensOf(clause: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (at < clause.length) {
    const plus = /\+\s*/y;
    plus.lastIndex = at;
    const sign = plus.exec(clause);
    const from = sign ? plus.lastIndex : at;
    const found = PATTERNS.map(([is, pattern, value]) => {
      pattern.lastIndex = from;
      const parts = /\d/.test(clause[from] ?? '') ? pattern.exec(clause) : null;
      return parts ? { is, value: value(parts), end: from + parts[0].length, text: parts[0] } : null;
    }).find((each) => each !== null);
    if (found) {
      // A mark before three figures may part thousands as well as decimals: such a number is nobody's guess.
      if (/\d[.,]\d{3}(?!\d)/.test(found.text)) tokens.push({ is: 'word', text: found.text });
      else tokens.push({ is: found.is, value: found.value, plus: sign !== null });
      at = found.end;
      continue;
    }
    const word = /[\p{L}\p{N}][\p{L}\p{N}'’-]*/uy;
    word.lastIndex = at;
    const parts = word.exec(clause);
    if (parts) tokens.push({ is: 'word', text: parts[0].toLowerCase() });
    at = parts ? word.lastIndex : at + 1;
  }
  return tokens;
}
