/**
 * A recipe as a code small enough for a QR picture, so that it goes from phone to phone with no server between them:
 * its JSON, deflated with a dictionary of what recipes have in common, in base64url.
 */
import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import { schemas } from '../../client/load-schemas';
import type { Recipe } from '@even-kettle/core/recipe';
import { CODE_DICTIONARY, CODE_DICTIONARY_2 } from './code-dictionary';

/** Each mark has its dictionary. Codes are made with the last. */
const MARKS = { 'ek1=': strToU8(CODE_DICTIONARY), 'ek2=': strToU8(CODE_DICTIONARY_2) } as const;
const MARK = 'ek2=';
/** A code of ours is under 4,000 characters, and a recipe under 60 KB. */
const CODE_MAX = 8000;
const UNPACKED_MAX = 60_000;

/** @param origin where this app is open, so that a phone's own camera leads to it too */
export const recipeCode = (recipe: Recipe, origin: string): string =>
  `${origin}/recipes/import#${MARK}${toBase64Url(deflateSync(strToU8(JSON.stringify(recipe)), { dictionary: MARKS[MARK], level: 9 }))}`;

/** Whether a text may have a recipe's code in it. */
export const holdsCode = (text: string): boolean => Object.keys(MARKS).some((mark) => text.includes(mark));

export type ReadCode = { ok: true; recipe: Recipe } | { ok: false; reason: string };

/** The recipe of a code, or why there is none in it. Nothing that it says is done, only shown. */
export function readCode(text: string): ReadCode {
  const mark = Object.keys(MARKS).find((each) => text.includes(each)) as keyof typeof MARKS | undefined;
  if (!mark) return { ok: false, reason: 'This is not a recipe’s code; one of ours has “ek2=” in it.' };
  const code = text.slice(text.indexOf(mark) + mark.length).trim();
  if (code.length > CODE_MAX) return { ok: false, reason: 'This code is too long to be a recipe’s.' };
  let value: unknown;
  try {
    const out = inflateSync(fromBase64Url(code), {
      dictionary: MARKS[mark],
      out: new Uint8Array(UNPACKED_MAX),
    });
    value = JSON.parse(strFromU8(out));
  } catch {
    return { ok: false, reason: 'The code is damaged or cut off; read it again.' };
  }
  const read = schemas().readRecipe(value);
  if (read.ok) return read;
  return {
    ok: false,
    reason: `The recipe in the code is not sound: ${read.faults[0]!.field} ${read.faults[0]!.reason}`,
  };
}

const toBase64Url = (bytes: Uint8Array): string =>
  btoa(strFromU8(bytes, true)).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');

const fromBase64Url = (text: string): Uint8Array => {
  if (!/^[A-Za-z0-9_-]+$/.test(text)) throw new Error('not base64url');
  return strToU8(atob(text.replaceAll('-', '+').replaceAll('_', '/')), true);
};
