/**
 * Log: what was brewed, found again by what is known of it; and the ways into what it teaches.
 */
import { useEffect, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { router, type Href, useLocalSearchParams } from 'expo-router';
import { keepPreviousData, useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import type { LogAsked } from '../../client/api';
import { useBar, useHere } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Loading, Notice } from '../../ui/notice';
import { Page } from '../../ui/page';
import { WIDE } from '../../ui/theme';
import { Heading } from '../../ui/text';
import { ServerAway } from '../../parts/loaded';
import { Brewed } from './brewed';
import { Filters } from './filters';
import { BrewOf } from './brew-page';
import { BesidePage } from '../../parts/chart-parts';
import { ToTaste } from './to-taste';
import { WORDS } from './words';

const WAYS: [label: string, href: Href][] = [
  [WORDS.todayLabel, '/log/today'],
  [WORDS.theDayInFigures, '/log/day'],
  [WORDS.brewTimeTrend, '/log/run'],
  [WORDS.hands, '/log/hands'],
  [WORDS.stockAndCare, '/log/house'],
  [WORDS.sampleRound, '/log/round'],
  [WORDS.files, '/log/files'],
];

/** Of the list beside a brew, and of the places beside both, pixels. */
const LIST_WIDTH = 480;
const NAV_WIDTH = 92;

/** A word is searched for when it has stood for so long, milliseconds. */
const STILL_MS = 300;

export function LogPlace() {
  const { api } = useHere();
  const { state, waiting } = useBar();
  const client = useQueryClient();
  const [asked, setAsked] = useState<LogAsked>({});
  const [typed, setTyped] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setAsked((before) => ({ ...before, search: typed.trim() })), STILL_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  const log = useInfiniteQuery({
    queryKey: ['log', asked],
    queryFn: ({ pageParam }) => api.log(asked, pageParam),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
  // Finished and tasted brews change the list.
  const finished = Object.values(state.brews)
    .map(({ id, status, taste }) => (status === 'running' ? '' : `${id} ${taste?.atMs ?? ''}`))
    .join();
  useEffect(() => {
    void client.invalidateQueries({ queryKey: ['log'] });
  }, [client, finished, waiting]);

  const records = log.data?.pages.flatMap((page) => page.records) ?? [];
  const isWide = useWindowDimensions().width >= WIDE;
  const { brew } = useLocalSearchParams<{ brew?: string }>();
  // A wide screen shows a brew beside the list: the one that was chosen, else the latest.
  const openId = isWide ? (brew ?? records[0]?.brewId) : undefined;
  const narrowed = Object.values(asked).some(Boolean);
  const list = (
    <Page>
      <Heading>{WORDS.log}</Heading>
      <ServerAway />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {WAYS.map(([label, href]) => (
          <Button key={label} label={label} onPress={() => router.push(href)} />
        ))}
      </View>
      <ToTaste />
      <Filters asked={asked} typed={typed} onType={setTyped} onAsk={setAsked} />
      {log.isPending ? <Loading what={WORDS.theLog} height={240} /> : null}
      {log.isError && records.length === 0 ? (
        <Notice
          ruled
          title={WORDS.logNotLoaded}
          action={<Button label={WORDS.tryAgain} onPress={() => void log.refetch()} />}
        >
          {WORDS.serverUnreachable}
        </Notice>
      ) : null}
      {log.isSuccess && records.length === 0 ? (
        narrowed ? (
          <Notice
            title={WORDS.noBrewFound}
            action={
              <Button
                label={WORDS.showAll}
                onPress={() => {
                  setTyped('');
                  setAsked({});
                }}
              />
            }
          />
        ) : (
          <Notice title={WORDS.nothingBrewedYet}>{WORDS.emptyLogHint}</Notice>
        )
      ) : null}
      {records.map((record) => (
        <Brewed
          key={record.brewId}
          record={record}
          beside={
            isWide
              ? {
                  isOpen: record.brewId === openId,
                  onOpen: () => router.setParams({ brew: record.brewId }),
                }
              : undefined
          }
        />
      ))}
      {log.hasNextPage ? (
        <Button
          label={log.isFetchingNextPage ? WORDS.loading : WORDS.earlierBrews}
          disabled={log.isFetchingNextPage}
          onPress={() => void log.fetchNextPage()}
        />
      ) : null}
    </Page>
  );
  if (!isWide) return list;
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <View style={{ width: LIST_WIDTH }}>{list}</View>
      <View style={{ flex: 1 }}>
        <BesidePage value={LIST_WIDTH + NAV_WIDTH}>
          <Page>{openId === undefined ? null : <BrewOf id={openId} />}</Page>
        </BesidePage>
      </View>
    </View>
  );
}
