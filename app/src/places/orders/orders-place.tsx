/**
 * Orders: taking and ordering cups.
 */
import { useBar } from '../../client/bar-context';
import { Loading } from '../../ui/notice';
import { Page } from '../../ui/page';
import { Heading } from '../../ui/text';
import { Unplannable } from '../unplannable';
import { Unreachable } from '../unreachable';
import { OrderList } from './order-list';
import { WORDS } from './words';

export function OrdersPlace() {
  const { status } = useBar();
  if (status === 'unreachable') return <Unreachable />;
  return (
    <Page>
      <Heading>{WORDS.orders}</Heading>
      {status === 'loading' ? (
        <Loading what={WORDS.theOrders} />
      ) : (
        <>
          <Unplannable />
          <OrderList />
        </>
      )}
    </Page>
  );
}
