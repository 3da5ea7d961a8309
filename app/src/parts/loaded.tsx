/**
 * What the server is asked for a page of the Log: on its way, not to be had, or there.
 */
import type { ReactNode } from 'react';
import { router, type Href } from 'expo-router';
import type { UseQueryResult } from '@tanstack/react-query';
import { Refused } from '../client/request';
import { Button } from '../ui/button';
import { Loading, Notice } from '../ui/notice';
import { Row } from '../ui/page';
import { useBar } from '../client/bar-context';
import { Heading, Text } from '../ui/text';
import { WORDS } from './words';

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
  if (of.error instanceof Refused) return <Notice title={WORDS.notInTheLog}>{of.error.message}</Notice>;
  return (
    <Notice
      ruled
      title={WORDS.couldNotLoad(what.charAt(0).toUpperCase(), what.slice(1))}
      action={<Button label={WORDS.tryAgain} onPress={() => void of.refetch()} />}
    >
      {WORDS.serverUnreachable}
    </Notice>
  );
}

/** A page's name, and the way back to where it was come from. */
export const PageHead = ({ title, back = '/log' }: { title: string; back?: Href }) => (
  <>
    <Row style={{ justifyContent: 'space-between' }}>
      <Heading style={{ flexShrink: 1 }}>{title}</Heading>
      <Button icon="back" label={WORDS.log} kind="bare" onPress={() => router.navigate(back)} />
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
      {WORDS.serverAway}
    </Text>
  );
}
