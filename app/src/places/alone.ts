/** The places that fill the window alone, each loaded when it is first needed. */
import { loadSchemas } from '../client/load-schemas';
import { lazyPlace } from '../ui/lazy-place';
import { WORDS } from './words';

export const BoardPlace = lazyPlace(
  WORDS.theBoard,
  async () => (await import('./board/board-place')).BoardPlace,
);
export const PairPlace = lazyPlace(WORDS.pairing, async () => {
  await loadSchemas();
  return (await import('./access/pair-place')).PairPlace;
});
