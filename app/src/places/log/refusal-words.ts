import { Refused } from '../../client/request';
import { WORDS } from './words';

/** The server's own words, with the first lines that are wrong. */
export function refusalWords(error: Error): string {
  if (!(error instanceof Refused)) return WORDS.nothingWasChanged;
  const lines = (error.problem.errors ?? []).slice(0, 3).map(({ field, reason }) => `${field}: ${reason}`);
  return [error.message, ...lines.filter((each) => each !== error.message)].join(' ');
}
