/**
 * What every place says when it has never reached the server.
 */
import { Notice } from '../ui/notice';
import { Page } from '../ui/page';

export function Unreachable() {
  return (
    <Page>
      <Notice ruled title="The bar’s server cannot be reached">
        Check that it runs and that this device is on its network. This page goes on by itself as soon as it
        answers; nothing tapped is lost.
      </Notice>
    </Page>
  );
}
