/**
 * Orders: taking and ordering cups.
 */
import { useBar } from '../../client/bar-context';
import { useFeed } from '../../client/use-feed';
import { clockTime } from '../../words/hands-words';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Heading, Text } from '../../ui/text';
import { Undo } from '../../parts/undo';
import { Unplannable } from '../unplannable';
import { Unreachable } from '../unreachable';
import { OrderList } from '../../parts/orders/order-list';
import { WORDS } from '../../parts/orders/words';

/** While the feed runs: when the next guests come. */
function NextBoat() {
  const { feed } = useFeed();
  return feed?.nextBoatMs ? <Text quiet>{WORDS.nextBoat(clockTime(feed.nextBoatMs))}</Text> : null;
}

export function OrdersPlace() {
  const { status } = useBar();
  if (status === 'unreachable') return <Unreachable />;
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{WORDS.orders}</Heading>
        <Undo />
      </Row>
      {status === 'loading' ? (
        <Loading what={WORDS.theOrders} />
      ) : (
        <>
          <NextBoat />
          <Unplannable />
          <OrderList />
        </>
      )}
    </Page>
  );
}
