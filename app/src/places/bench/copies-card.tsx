/** The copies of the bar: how old the latest is, one more by hand, and the way back to one. */
import { useState } from 'react';
import { View } from 'react-native';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns/formatDistanceToNow';
import { useBar, useHere } from '../../client/bar-context';
import { Refused } from '../../client/request';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Dialog } from '../../ui/dialog';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

const COPIES = ['copies'];
const SHOWN = 5;
const DATE = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

export function CopiesCard() {
  const { api } = useHere();
  const queries = useQueryClient();
  const [all, setAll] = useState(false);
  const [asked, setAsked] = useState<string | null>(null);
  // A server that was started anew may have other copies.
  const { link } = useBar();
  const list = useQuery({
    queryKey: [...COPIES, link],
    queryFn: api.copies,
    placeholderData: keepPreviousData,
  });
  const again = () => queries.invalidateQueries({ queryKey: COPIES });
  const make = useMutation({ mutationFn: api.makeCopy, onSettled: again });
  const restore = useMutation({ mutationFn: api.restoreCopy, onSettled: () => setAsked(null) });
  if (!list.data) return null;
  const { copies } = list.data;
  const [latest] = copies;
  const fault = make.error ?? restore.error;
  const chosen = copies.find(({ name }) => name === asked);
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>{WORDS.copies}</Subheading>
      <Text role="status">
        {restore.isSuccess
          ? WORDS.startsAnew
          : latest
            ? WORDS.latestCopy(formatDistanceToNow(latest.atMs))
            : WORDS.noCopyYet}
      </Text>
      {copies.slice(0, all ? Infinity : SHOWN).map(({ name, kind, atMs, bytes }) => (
        <Row key={name}>
          <View style={{ flex: 1 }}>
            <Text>{DATE.format(atMs)}</Text>
            <Text size="small" quiet>
              {WORDS.copyOf(WORDS.copyKinds[kind], (bytes / 1e6).toFixed(1))}
            </Text>
          </View>
          <Button
            label={WORDS.restore}
            says={WORDS.restoreOf(DATE.format(atMs))}
            onPress={() => setAsked(name)}
          />
        </Row>
      ))}
      {copies.length > SHOWN && !all ? (
        <Button kind="bare" label={WORDS.allCopies(copies.length)} onPress={() => setAll(true)} />
      ) : null}
      {fault ? (
        <Text role="alert" bold>
          {fault instanceof Refused ? fault.message : WORDS.noCopyMade}
        </Text>
      ) : null}
      <Button
        label={make.isPending ? WORDS.copying : WORDS.copyNow}
        disabled={make.isPending}
        onPress={() => make.mutate()}
        style={{ alignSelf: 'flex-start' }}
      />
      {chosen ? (
        <Dialog
          title={WORDS.restoreOf(DATE.format(chosen.atMs))}
          onClose={() => setAsked(null)}
          actions={
            <>
              <Button
                kind="main"
                label={restore.isPending ? WORDS.restoring : WORDS.restore}
                disabled={restore.isPending}
                onPress={() => restore.mutate(chosen.name)}
              />
              <Button label={WORDS.cancel} onPress={() => setAsked(null)} />
            </>
          }
        >
          <Text>{WORDS.restoreMeans}</Text>
        </Dialog>
      ) : null}
    </Card>
  );
}
