/**
 * What the server is asked for a page of the Log: on its way, not to be had, or there.
 */
import type { ReactNode } from 'react';
import { router, type Href } from 'expo-router';
import type { UseQueryResult } from '@tanstack/react-query';
import { Refused } from '../../client/request';
import { Button } from '../../ui/button';
import { Loading, Notice } from '../../ui/notice';
import { Row } from '../../ui/page';
import { useBar } from '../../client/bar-context';
import { Heading, Text } from '../../ui/text';

export function Loaded<Data>({
  of,
  what,
  children,
}: {
  of: UseQueryResult<Data>;
  what: string;
  children: (data: Data) => ReactNode;
}) {
  if (of.isPending) return <Loading what={what} height={240} />;
  if (of.data !== undefined) return children(of.data);
  if (of.error instanceof Refused) return <Notice title="Not in the log">{of.error.message}</Notice>;
  return (
    <Notice
      ruled
      title={`${what.charAt(0).toUpperCase()}${what.slice(1)} could not load`}
      action={<Button label="Try again" onPress={() => void of.refetch()} />}
    >
      The server could not be asked for it just now. What was brewed is kept.
    </Notice>
  );
}

/** A page's name, and the way back to where it was come from. */
export const PageHead = ({ title, back = '/log' }: { title: string; back?: Href }) => (
  <>
    <Row style={{ justifyContent: 'space-between' }}>
      <Heading style={{ flexShrink: 1 }}>{title}</Heading>
      <Button icon="back" label="Log" kind="bare" onPress={() => router.navigate(back)} />
    </Row>
    <ServerAway />
  </>
);

/** While the server is away a page of the Log shows what was last read of it, and says so. */
export function ServerAway() {
  const { link } = useBar();
  if (link !== 'away') return null;
  return (
    <Text role="status" bold testID="log-away">
      The server is away. What is shown was read before; what is brewed meanwhile comes into the log when it
      is back.
    </Text>
  );
}
