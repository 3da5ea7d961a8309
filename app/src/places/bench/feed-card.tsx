/**
 * The order feed, which stands in for orders from outside: boats by a timetable.
 */
import { useFeed } from '../../client/use-feed';
import { clockTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

export function FeedCard() {
  const { feed, run } = useFeed();
  if (!feed) return null;
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>{WORDS.orderFeed}</Subheading>
      <Text size="small" quiet>
        {WORDS.boatsEvery(feed.everyMin)}
      </Text>
      <Text role="status">
        {feed.nextBoatMs === null ? WORDS.theFeedStands : WORDS.nextBoatAt(clockTime(feed.nextBoatMs))}
      </Text>
      <Button
        label={feed.running ? WORDS.stopTheFeed : WORDS.startTheFeed}
        disabled={run.isPending}
        onPress={() => run.mutate(!feed.running)}
        style={{ alignSelf: 'flex-start' }}
      />
    </Card>
  );
}
