/**
 * Log: finished brews, planned against real.
 */
import { useEffect } from 'react';
import { View } from 'react-native';
import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { METHODS } from '@even-kettle/core/recipe';
import type { BrewRecord } from '@even-kettle/core/contract';
import { inWords, showClock, showMass } from '@even-kettle/core/units';
import { useBar, useHere, useUnits } from '../../bar/bar-context';
import { Badge } from '../../ui/badge';
import { useLook } from '../../ui/look';
import { Card, Loading, Notice, Page, Row, Tap } from '../../ui/parts';
import { Heading, Text } from '../../ui/text';

export function LogPlace() {
  const { api } = useHere();
  const { state } = useBar();
  const client = useQueryClient();
  const log = useInfiniteQuery({
    queryKey: ['log'],
    queryFn: ({ pageParam }) => api.log({}, pageParam),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next,
  });
  const finished = Object.values(state.brews).filter((brew) => brew.status !== 'running').length;
  useEffect(() => {
    void client.invalidateQueries({ queryKey: ['log'] });
  }, [client, finished]);

  const records = log.data?.pages.flatMap((page) => page.records) ?? [];
  return (
    <Page>
      <Heading>Log</Heading>
      {log.isPending ? <Loading what="the log" height={240} /> : null}
      {log.isError ? (
        <Notice
          ruled
          title="The log did not come"
          action={<Tap label="Try again" onPress={() => void log.refetch()} />}
        >
          The server could not be asked for it just now. What was brewed is kept.
        </Notice>
      ) : null}
      {log.isSuccess && records.length === 0 ? (
        <Notice title="Nothing brewed yet">
          Every brew that is handed over or given up is written here, planned against poured.
        </Notice>
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

function Brewed({ record }: { record: BrewRecord }) {
  const units = useUnits();
  const method = METHODS[record.method];
  return (
    <Card style={{ gap: 6 }} ruled={record.outcome === 'abandoned'}>
      <View role="group" aria-label={`${record.coffee}, ${method.name}`} style={{ gap: 6 }}>
        <Row>
          <Badge badge={record.badge} />
          <View style={{ flex: 1 }}>
            <Text bold numberOfLines={1}>
              {record.coffee} · {method.name}
            </Text>
            <Text size="small" quiet numberOfLines={1}>
              {clockTime(record.endedMs)} · {record.stationName} ·{' '}
              {showMass(record.doseG, units, 'dose').figure} →{' '}
              {inWords(showMass(record.brewWaterG, units, 'water'))}
            </Text>
          </View>
          <View style={{ alignItems: 'flex-end' }}>
            <Text size="clock" testID="real-time">
              {record.realBrewS === null ? '–' : showClock(record.realBrewS)}
            </Text>
            <Text size="small" quiet>
              {record.outcome === 'abandoned' ? 'given up' : `planned ${showClock(record.plannedBrewS)}`}
            </Text>
          </View>
        </Row>
        {record.realBrewS === null ? null : <PlannedAgainstReal record={record} />}
        <Text size="small">{verdict(record)}</Text>
      </View>
    </Card>
  );
}

/** Two lines on one scale: the plan's steps above, what was done below, the window of the end mark between. */
function PlannedAgainstReal({ record }: { record: BrewRecord }) {
  const look = useLook();
  const endS = Math.max(record.windowToS, record.realBrewS ?? 0) * 1.04;
  const at = (seconds: number) => `${(Math.max(0, seconds) / endS) * 100}%` as const;
  const pours = record.steps.filter(
    ({ attended, phase, realStartS }) => attended && phase === 'brew' && realStartS !== null,
  );
  return (
    <View aria-hidden style={{ height: 26, marginVertical: 2 }}>
      <View
        style={{
          position: 'absolute',
          top: 0,
          bottom: 0,
          left: at(record.windowFromS),
          width: at(record.windowToS - record.windowFromS),
          backgroundColor: look.coolPale,
        }}
      />
      <View
        style={{
          position: 'absolute',
          top: 5,
          left: 0,
          width: at(record.plannedBrewS),
          height: 1.5,
          backgroundColor: look.ink2,
        }}
      />
      <View
        style={{
          position: 'absolute',
          top: 19,
          left: 0,
          width: at(record.realBrewS ?? 0),
          height: 2,
          backgroundColor: look.cool,
        }}
      />
      {pours.map(({ id, plannedStartS, realStartS, realEndS }) => (
        <View key={id}>
          <View
            style={{
              position: 'absolute',
              top: 2,
              left: at(plannedStartS),
              width: 2,
              height: 8,
              backgroundColor: look.ink2,
            }}
          />
          <View
            style={{
              position: 'absolute',
              top: 15,
              left: at(realStartS!),
              width: at(Math.max(1, (realEndS ?? realStartS!) - realStartS!)),
              height: 10,
              backgroundColor: look.cool,
            }}
          />
        </View>
      ))}
    </View>
  );
}

function verdict(record: BrewRecord): string {
  if (record.outcome === 'abandoned') return `Given up: ${record.reason ?? 'no reason given'}.`;
  if (record.realBrewS === null) return 'Served before its end mark was told.';
  const off = Math.round(record.realBrewS - record.plannedBrewS);
  const against =
    off === 0 ? 'as planned' : `${showClock(Math.abs(off))} ${off > 0 ? 'longer' : 'shorter'} than planned`;
  const inWindow = record.realBrewS >= record.windowFromS && record.realBrewS <= record.windowToS;
  return `${capital(against)}, ${inWindow ? 'inside' : record.realBrewS > record.windowToS ? 'over' : 'under'} its window.`;
}

const clockTime = (atMs: number): string =>
  new Date(atMs).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
