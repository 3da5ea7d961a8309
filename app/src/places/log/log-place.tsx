/**
 * Log: what was brewed, found again by what is known of it; and the ways into what it teaches.
 */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { router, type Href } from 'expo-router';
import { keepPreviousData, useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { TASTES } from '@even-kettle/core/brew';
import { METHODS, METHOD_IDS } from '@even-kettle/core/recipe';
import type { LogAsked } from '../../bar/api';
import { useBar, useHere } from '../../bar/bar-context';
import { Field } from '../../ui/field';
import { Loading, Notice, Page, Row, Tap } from '../../ui/parts';
import { Select } from '../../ui/select';
import { Heading, Text } from '../../ui/text';
import { Brewed } from './brewed';
import { ToTaste } from './to-taste';

const WAYS: [label: string, href: Href][] = [
  ['Today', '/log/day'],
  ['Runs', '/log/run'],
  ['Hands', '/log/hands'],
  ['In the house', '/log/house'],
  ['Sample round', '/log/round'],
  ['Files', '/log/files'],
];

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
  const narrowed = Object.values(asked).some(Boolean);
  return (
    <Page>
      <Heading>Log</Heading>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {WAYS.map(([label, href]) => (
          <Tap key={label} label={label} onPress={() => router.push(href)} />
        ))}
      </View>
      <ToTaste />
      <Filters asked={asked} typed={typed} onType={setTyped} onAsk={setAsked} />
      {log.isPending ? <Loading what="the log" height={240} /> : null}
      {log.isError && records.length === 0 ? (
        <Notice
          ruled
          title="The log did not come"
          action={<Tap label="Try again" onPress={() => void log.refetch()} />}
        >
          The server could not be asked for it just now. What was brewed is kept.
        </Notice>
      ) : null}
      {log.isSuccess && records.length === 0 ? (
        narrowed ? (
          <Notice
            title="No brew is like that"
            action={
              <Tap
                label="Show all"
                onPress={() => {
                  setTyped('');
                  setAsked({});
                }}
              />
            }
          />
        ) : (
          <Notice title="Nothing brewed yet">
            Every brew that is handed over or given up is written here, planned against poured.
          </Notice>
        )
      ) : null}
      {records.map((record) => (
        <Brewed key={record.brewId} record={record} />
      ))}
      {log.hasNextPage ? (
        <Tap
          label={log.isFetchingNextPage ? 'Loading…' : 'Earlier brews'}
          disabled={log.isFetchingNextPage}
          onPress={() => void log.fetchNextPage()}
        />
      ) : null}
    </Page>
  );
}

type FiltersProps = {
  asked: LogAsked;
  typed: string;
  onType: (text: string) => void;
  onAsk: (asked: LogAsked) => void;
};

function Filters({ asked, typed, onType, onAsk }: FiltersProps) {
  const { bar, recipes } = useBar();
  const [open, setOpen] = useState(false);
  const chosen = (['coffee', 'method', 'recipeId', 'stationId', 'person', 'taste'] as const).filter(
    (key) => asked[key],
  );
  const choose = (
    key: (typeof chosen)[number],
    label: string,
    options: readonly { value: string; label: string }[],
  ) => (
    <Select
      label={label}
      value={asked[key] ?? ''}
      onChange={(value) => onAsk({ ...asked, [key]: value })}
      options={[{ value: '', label: 'any' }, ...options]}
      style={{ flexGrow: 1, flexBasis: 150 }}
    />
  );
  const named = (things: readonly { id: string; name: string }[]) =>
    things.map(({ id, name }) => ({ value: id, label: name }));
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <Field label="Search" says="Search the log" value={typed} onChangeText={onType} style={{ flex: 1 }} />
        <Tap
          label={chosen.length > 0 ? `Narrow · ${chosen.length}` : 'Narrow'}
          kind={open || chosen.length > 0 ? 'chosen' : 'plain'}
          onPress={() => setOpen(!open)}
          style={{ height: 56 }}
        />
      </Row>
      {open ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
          {choose(
            'coffee',
            'Coffee',
            (bar?.coffees ?? []).map(({ name }) => ({ value: name, label: name })),
          )}
          {choose(
            'method',
            'Method',
            METHOD_IDS.map((id) => ({ value: id, label: METHODS[id].name })),
          )}
          {choose('recipeId', 'Recipe', named(recipes))}
          {choose('stationId', 'Station', named(bar?.stations ?? []))}
          {choose('person', 'Hands of', named(bar?.people ?? []))}
          {choose(
            'taste',
            'Taste',
            TASTES.map((taste) => ({ value: taste, label: taste })),
          )}
          <Row style={{ flexBasis: '100%' }}>
            <Text size="small" quiet style={{ flex: 1 }}>
              Guest, coffee, recipe, notes and tastes are searched.
            </Text>
            {chosen.length > 0 ? (
              <Tap label="Any" kind="bare" onPress={() => onAsk({ search: asked.search ?? '' })} />
            ) : null}
          </Row>
        </View>
      ) : null}
    </View>
  );
}
