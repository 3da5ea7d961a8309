/**
 * Numbers as people say them: “twenty-six and a half”, “a hundred and forty”, “one seventy-five”, “half a” of something.
 */
const UNITS = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const TEENS = [
  'ten',
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
  'seventeen',
  'eighteen',
  'nineteen',
];
const TENS = ['', '', 'twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety'];

export type SpokenNumber = {
  value: number;
  /** How many words it takes. */
  words: number;
  /** The same words as a reading of a clock, seconds: “one forty” is 140, or 1:40. */
  clockS?: number;
};

/** The longest number that begins with a word; null where none does. Words are in small letters, without hyphens. */
export function spokenNumber(words: readonly string[], at: number): SpokenNumber | null {
  const half = halfOf(words, at);
  if (half) return half;
  const whole = wholeNumber(words, at);
  if (!whole) return null;
  const rest = fraction(words, at + whole.words);
  if (!rest) return whole;
  return { value: whole.value + rest.value, words: whole.words + rest.words };
}

/** “half a”, before what it is half of. */
function halfOf(words: readonly string[], at: number): SpokenNumber | null {
  return words[at] === 'half' && (words[at + 1] === 'a' || words[at + 1] === 'an')
    ? { value: 0.5, words: 2 }
    : null;
}

function fraction(words: readonly string[], at: number): SpokenNumber | null {
  const [and, a, part] = words.slice(at, at + 3);
  if (and === 'and' && a === 'a' && (part === 'half' || part === 'quarter'))
    return { value: part === 'half' ? 0.5 : 0.25, words: 3 };
  if (and === 'and' && a === 'three' && part === 'quarters') return { value: 0.75, words: 3 };
  const digit = a === undefined ? -1 : UNITS.indexOf(a);
  return and === 'point' && digit >= 0 ? { value: digit / 10, words: 2 } : null;
}

function wholeNumber(words: readonly string[], at: number): SpokenNumber | null {
  // “a hundred”, “another hundred and forty”.
  const bareHundred =
    words[at] === 'hundred' ? 0 : words[at] === 'a' && words[at + 1] === 'hundred' ? 1 : null;
  const first = bareHundred === null ? belowHundred(words, at) : { value: 1, words: bareHundred };
  if (!first) return null;
  const next = at + first.words;
  if (words[next] === 'hundred') return hundreds(words, next + 1, first);
  // “two ninety-four”, “one oh five”: hundreds with the word left out, or a clock.
  const second = first.value >= 1 && first.value <= 9 && first.words === 1 ? pairOfDigits(words, next) : null;
  if (!second) return first;
  return {
    value: 100 * first.value + second.value,
    words: first.words + second.words,
    ...(second.value < 60 ? { clockS: 60 * first.value + second.value } : {}),
  };
}

function hundreds(words: readonly string[], at: number, first: SpokenNumber): SpokenNumber {
  const and = words[at] === 'and' ? 1 : 0;
  const rest = belowHundred(words, at + and);
  return rest
    ? { value: 100 * first.value + rest.value, words: first.words + 1 + and + rest.words }
    : { value: 100 * first.value, words: first.words + 1 };
}

function belowHundred(words: readonly string[], at: number): SpokenNumber | null {
  const word = words[at] ?? '';
  const unit = UNITS.indexOf(word);
  if (unit >= 0) return { value: unit, words: 1 };
  const teen = TEENS.indexOf(word);
  if (teen >= 0) return { value: 10 + teen, words: 1 };
  const tens = word === '' ? -1 : TENS.indexOf(word);
  if (tens < 0) return null;
  const after = UNITS.indexOf(words[at + 1] ?? '');
  return after > 0 ? { value: 10 * tens + after, words: 2 } : { value: 10 * tens, words: 1 };
}

/** What can follow a spoken digit as the rest of its hundred: “seventy-five”, “fifteen”, “oh five”. */
function pairOfDigits(words: readonly string[], at: number): SpokenNumber | null {
  if (words[at] === 'oh' || words[at] === 'o') {
    const unit = UNITS.indexOf(words[at + 1] ?? '');
    return unit >= 0 ? { value: unit, words: 2 } : null;
  }
  const found = belowHundred(words, at);
  return found && found.value >= 10 ? found : null;
}
