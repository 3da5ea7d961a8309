/**
 * What every place says when it has never reached the server.
 */
import { Notice } from '../ui/notice';
import { Page } from '../ui/page';
import { WORDS } from './words';

export function Unreachable() {
  return (
    <Page>
      <Notice ruled title={WORDS.serverUnreachable}>
        {WORDS.unreachableHint}
      </Notice>
    </Page>
  );
}
