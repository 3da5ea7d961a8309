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

export function OrdersPlace() {
  const { status } = useBar();
  if (status === 'unreachable') return <Unreachable />;
  return (
    <Page>
      <Heading>Orders</Heading>
      {status === 'loading' ? (
        <Loading what="the orders" />
      ) : (
        <>
          <Unplannable />
          <OrderList />
        </>
      )}
    </Page>
  );
}
