/**
 * The language of the interface's words, and how it counts. Each place's own words are in its `words.ts`.
 */
const LANGUAGE = 'en';
const COUNTED = new Intl.PluralRules(LANGUAGE);

/** A name, a figure or another part of a sentence, as it is shown. */
export type Shown = string | number;

/** The form for one, or the form for any other count. */
export const plural = (count: number, one: string, other: string): string =>
  COUNTED.select(count) === 'one' ? one : other;

/** A count with what is counted: 1 brew, 2 brews. */
export const counted = (count: Shown, one: string, other: string): string =>
  `${count} ${plural(Number(count), one, other)}`;
