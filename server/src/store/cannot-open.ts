/** Why a bar cannot be opened on its database, in words that say what a person has to do. */
import { CannotStart } from '../cannot-start';
import { failureOf } from './transaction';

export const GO_BACK =
  'Stop the server, keep the damaged file, put the latest copy that `npm run backup` made in its place, and start again.';

/** The same fault as one that a restart does not mend; null for any other. */
export function whyNoStart(error: unknown): CannotStart | null {
  if (error instanceof CannotStart) return error;
  switch (failureOf(error)?.code) {
    case 'damaged':
      return new CannotStart(`The database is damaged so much that it cannot be opened. ${GO_BACK}`);
    case 'full':
      return new CannotStart(
        'The disk is full, so the bar cannot be opened. Make room on it, then start again.',
      );
    default:
      return null;
  }
}
