/**
 * Today: what to do before opening, what to get ready for the rush, how the bar is handed over, and what closes it.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useBar, useHere, useNow } from '../../client/bar-context';
import { startOfDay } from '../../ui/days';
import { Button } from '../../ui/button';
import { Halves, Page } from '../../ui/page';
import { GuestsDue } from '../guests-due';
import { Loaded, PageHead } from '../../parts/loaded';
import { HandoverCard } from './handover-card';
import { ReadyCard, type Hours } from './ready-card';
import { TaskList } from './task-list';
import { WORDS } from './words';

/** What is expected is asked for anew so often, milliseconds of bar time. */
const ANEW_MS = 300_000;
const HOUR_MS = 3600 * 1000;

export function TodayPage() {
  const { api } = useHere();
  const { bar, state, waiting } = useBar();
  const nowMs = useNow(30_000, 500);
  const [hours, setHours] = useState<Hours>('2');
  const fromMs = Math.floor(nowMs / ANEW_MS) * ANEW_MS;
  const happened = state.houseEvents?.at(-1)?.id ?? '';
  const today = useQuery({
    queryKey: ['log', 'today', fromMs, hours, happened, bar?.version, waiting],
    queryFn: () => api.today(fromMs, fromMs + Number(hours) * HOUR_MS),
    placeholderData: keepPreviousData,
    // Bar time is 0 until it has been measured.
    enabled: nowMs > 0,
  });
  const house = useQuery({
    queryKey: ['log', 'house', happened, bar?.version, waiting],
    queryFn: api.house,
    placeholderData: keepPreviousData,
  });
  const sinceMs = startOfDay(nowMs);
  const kettles = today.data?.kettles;
  const descale: Record<string, string> = kettles?.descaleAfterL
    ? {
        descale: (kettles.litres >= kettles.descaleAfterL ? WORDS.descale : WORDS.descaleNotYet)(
          kettles.litres,
          kettles.descaleAfterL,
        ),
      }
    : {};
  return (
    <Page wide>
      <PageHead title={WORDS.today} />
      <GuestsDue />
      <Button
        label={WORDS.theDaysPage}
        onPress={() => router.push('/log/day')}
        style={{ alignSelf: 'flex-start' }}
      />
      <Loaded of={today} what={WORDS.theDay}>
        {(of) =>
          bar ? (
            <Halves
              first={
                <>
                  <TaskList bar={bar} list="opening" sinceMs={sinceMs} />
                  <ReadyCard bar={bar} today={of} hours={hours} onHours={setHours} />
                </>
              }
              second={
                <>
                  <HandoverCard bar={bar} today={of} house={house.data} sinceMs={sinceMs} />
                  <TaskList bar={bar} list="closing" sinceMs={sinceMs} details={descale} />
                </>
              }
            />
          ) : null
        }
      </Loaded>
    </Page>
  );
}
