/** The bar's copies over HTTP. */
import type { BarServer } from '../server';
import { HttpProblem } from './problem';
import type { AddRoute } from './route';

/** @param restore puts a copy's file in the place of the database, after the answer has gone out */
export function copyRoutes(
  route: AddRoute,
  { copies }: BarServer,
  restore: ((file: string) => Promise<void>) | undefined,
): void {
  route('getCopies', () => ({
    copies: copies.list().map(({ name, kind, atMs, bytes }) => ({ name, kind, atMs, bytes })),
  }));
  route('makeCopy', async () => {
    // Those by hand are removed by people, who cannot from here.
    if (copies.list().filter(({ kind }) => kind === 'by-hand').length >= BY_HAND_MAX) throw AS_MANY_AS_MAY_BE;
    const made = await copies.make('by-hand');
    if (!made.ok) throw new HttpProblem(507, 'no-copy', 'No copy was made', made.reason);
    return { name: made.copy.name, events: made.events };
  });
  route('restoreCopy', async ({ id, request, response }) => {
    const looked = await copies.prove(id);
    if (!looked) throw NO_SUCH_COPY;
    if (!looked.proof.ok)
      throw new HttpProblem(
        409,
        'not-whole',
        'Nothing was restored',
        `The copy is not whole. ${looked.proof.reason}`,
      );
    if (!restore) throw CANNOT_START_ANEW;
    response.once('finish', () => {
      restore(looked.copy.file).catch((error: unknown) => {
        request.log?.error({ err: error }, 'the copy could not be restored');
        process.exit(1);
      });
    });
  });
}

const BY_HAND_MAX = 30;
const AS_MANY_AS_MAY_BE = new HttpProblem(
  409,
  'full',
  'No copy was made',
  'There are as many copies by hand as there may be. Remove some from the folder backups beside the database.',
);

const NO_SUCH_COPY = new HttpProblem(404, 'no-such-copy', 'No such copy', 'There is no copy of this name.');
const CANNOT_START_ANEW = new HttpProblem(
  409,
  'cannot-start-anew',
  'Nothing was restored',
  'This server cannot start itself anew. Stop it, and restore the copy with npm run restore.',
);
