/**
 * A large file on its way into the bar: sent, looked at, taken, each with how far it is and a way to stop it.
 */
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ImportJob, ImportKind, Imports } from '@even-kettle/core/contract';
import { useHere } from '../../client/bar-context';
import { chooseFile } from '../../ui/files';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { refusalWords } from './refusal-words';
import { WORDS } from './words';

const ASK_MS = 400;
const KEY = ['imports'];
const GOES_ON: Partial<Record<ImportJob['phase'], string>> = {
  looking: WORDS.lookingAtIt,
  taking: WORDS.takingIt,
  'taking-out': WORDS.takingItOutAgain,
};
const ACCEPT: Record<ImportKind, string> = {
  log: '.csv,text/csv',
  archive: '.json,application/json',
};

/** What the server has in hand; asked again and again while something goes on. */
function useImports() {
  const { api } = useHere();
  return useQuery({
    queryKey: KEY,
    queryFn: () => api.imports(),
    refetchInterval: ({ state }) =>
      state.data?.current && GOES_ON[state.data.current.phase] ? ASK_MS : false,
  });
}

type Props = { kind: ImportKind; title: string; children: ReactNode };

/** @param children what such a file holds, in a line */
export function LargeFileCard({ kind, title, children }: Props) {
  const { api } = useHere();
  const queries = useQueryClient();
  const imports = useImports();
  const [sent, setSent] = useState<number | null>(null);
  const [stop, setStop] = useState<AbortController | null>(null);
  const again = () => queries.invalidateQueries({ queryKey: KEY });
  const send = useMutation({
    mutationFn: async () => {
      const file = await chooseFile(ACCEPT[kind]);
      if (!file) return;
      const sending = new AbortController();
      setStop(sending);
      setSent(0);
      await api.sendFile(kind, file, setSent, sending.signal);
    },
    onSettled: () => {
      setSent(null);
      setStop(null);
      return again();
    },
  });
  const take = useMutation({
    mutationFn: ({ id, leaveOut }: { id: string; leaveOut: boolean }) => api.takeFile(id, leaveOut),
    onSettled: again,
  });
  const end = useMutation({ mutationFn: (id: string) => api.endFile(id), onSettled: again });
  const current = imports.data?.current ?? null;
  const job = current?.kind === kind ? current : null;
  const busy = current !== null && GOES_ON[current.phase] !== undefined;
  const stopped = stop?.signal.aborted ?? false;
  const error = stopped ? null : (send.error ?? take.error ?? end.error);
  return (
    <Card>
      <Subheading>{title}</Subheading>
      <Text size="small" quiet>
        {children}
      </Text>
      {sent !== null ? (
        <Going words={WORDS.sendingIt} share={sent} onStop={() => stop?.abort()} />
      ) : job && GOES_ON[job.phase] ? (
        <Going
          words={`${GOES_ON[job.phase]!}: ${job.name}`}
          share={job.phase === 'taking-out' ? null : job.share}
          onStop={job.phase === 'taking-out' || end.isPending ? null : () => end.mutate(job.id)}
        />
      ) : (
        <>
          <Button
            label={WORDS.chooseAFile}
            says={WORDS.chooseFileFor(title)}
            disabled={busy}
            onPress={() => send.mutate()}
            style={{ alignSelf: 'flex-start' }}
          />
          {busy ? (
            <Text size="small" quiet>
              {WORDS.otherImportRuns}
            </Text>
          ) : null}
        </>
      )}
      {error ? <Text role="alert">{refusalWords(error)}</Text> : null}
      {job?.phase === 'refused' ? <Text role="alert">{WORDS.notReadIn(job.reason ?? '')}</Text> : null}
      {job?.phase === 'looked' ? (
        <Looked
          job={job}
          onTake={(leaveOut) => take.mutate({ id: job.id, leaveOut })}
          onForget={() => end.mutate(job.id)}
        />
      ) : null}
      {job?.phase === 'taken' ? <Taken job={job} /> : null}
      {kind === 'log' ? (
        <Kept of={imports.data?.kept ?? []} busy={busy} onTakeOut={(id) => end.mutate(id)} />
      ) : null}
    </Card>
  );
}

function Going({
  words,
  share,
  onStop,
}: {
  words: string;
  share: number | null;
  onStop: (() => void) | null;
}) {
  const theme = useTheme();
  const percent = share === null ? null : Math.floor(share * 100);
  return (
    <View style={{ gap: 6 }}>
      <Row>
        <Text numberOfLines={1} style={{ flex: 1 }}>
          {words}
        </Text>
        {percent === null ? null : <Text bold>{percent} %</Text>}
        {onStop ? <Button label={WORDS.stop} onPress={onStop} /> : null}
      </Row>
      <View
        role="progressbar"
        aria-label={words}
        {...(percent === null ? {} : { 'aria-valuenow': percent, 'aria-valuemin': 0, 'aria-valuemax': 100 })}
        style={{ height: 10, borderRadius: 3, backgroundColor: theme.coolPale, overflow: 'hidden' }}
      >
        <View style={{ height: '100%', width: `${percent ?? 0}%`, backgroundColor: theme.cool }} />
      </View>
    </View>
  );
}

type LookedProps = { job: ImportJob; onTake: (leaveOut: boolean) => void; onForget: () => void };

/** What the look has found, and what can be done with it. */
function Looked({ job, onTake, onForget }: LookedProps) {
  const { rows, faulty, shows, faults, fromMs, toMs } = job.found!;
  const good = rows - faulty;
  return (
    <View style={{ gap: 6 }}>
      <Text bold>
        {job.name}: {count(rows, job.kind === 'log' ? 'brew' : 'event')}
        {fromMs === null || toMs === null
          ? ''
          : day(fromMs) === day(toMs)
            ? `, ${day(fromMs)}`
            : WORDS.toForFromMs(day(fromMs), day(toMs))}
      </Text>
      {faults.map(({ line, reason }) => (
        <Line key={`fault ${line}`} line={line} words={WORDS.notSo(reason)} bold />
      ))}
      {faulty > faults.length ? (
        <Text size="small">{WORDS.andFaulty(count(faulty - faults.length, WORDS.moreRow))}</Text>
      ) : null}
      {shows.map(({ line, shows: words }) => (
        <Line key={`${line} ${words}`} line={line} words={words} />
      ))}
      {good > shows.length && job.kind === 'log' ? (
        <Text size="small" quiet>
          {WORDS.andLikeThese(count(good - shows.length, 'more'))}
        </Text>
      ) : null}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button
          kind="main"
          disabled={good === 0 && job.kind === 'log'}
          label={
            job.kind === 'archive'
              ? WORDS.restoreThisBar
              : faulty === 0
                ? WORDS.importAllForRows(figure(rows))
                : WORDS.importSkip(figure(good), figure(faulty))
          }
          onPress={() => onTake(faulty > 0)}
        />
        <Button label={WORDS.cancel} onPress={onForget} />
      </Row>
    </View>
  );
}

function Line({ line, words, bold = false }: { line: number; words: string; bold?: boolean }) {
  return (
    <Row style={{ alignItems: 'flex-start' }}>
      {line > 0 ? (
        <Text size="small" quiet style={{ width: 76 }}>
          {WORDS.line(figure(line))}
        </Text>
      ) : null}
      <Text size="small" bold={bold} style={{ flex: 1 }}>
        {words}
      </Text>
    </Row>
  );
}

function Taken({ job }: { job: ImportJob }) {
  if (job.kind === 'archive')
    return (
      <>
        <Text bold>{WORDS.areBack(count(job.taken, 'event'))}</Text>
        <Button label={WORDS.openTheBar} onPress={() => window.location.assign('/')} />
      </>
    );
  const known = job.known === 0 ? '' : WORDS.wereThereAlready(figure(job.known));
  return (
    <Text bold role="status">
      {job.taken === 0 ? WORDS.nothingNewInIt : WORDS.cameIntoTheLog(count(job.taken, 'brew'))}
      {known}
    </Text>
  );
}

type KeptProps = { of: Imports['kept']; busy: boolean; onTakeOut: (id: string) => void };

/** Logs that were read in before; what came in can go again. */
function Kept({ of, busy, onTakeOut }: KeptProps) {
  const [sure, setSure] = useState<string | null>(null);
  return of.map(({ id, name, brews, atMs }) => (
    <Row key={id}>
      <View style={{ flex: 1 }}>
        <Text numberOfLines={1}>{name}</Text>
        <Text size="small" quiet>
          {WORDS.readIn(count(brews, 'brew'), day(atMs))}
        </Text>
      </View>
      <Button
        kind={sure === id ? 'ruled' : 'plain'}
        label={sure === id ? WORDS.yesRemove(figure(brews)) : WORDS.remove}
        says={sure === id ? WORDS.confirmRemoval(name) : WORDS.removeForName(name)}
        disabled={busy}
        onPress={() => (sure === id ? onTakeOut(id) : setSure(id))}
      />
    </Row>
  ));
}

const figure = (many: number): string => many.toLocaleString();
const count = (many: number, one: string): string =>
  `${figure(many)} ${one}${many === 1 || one === 'more' ? '' : 's'}`;
const day = (atMs: number): string =>
  new Date(atMs).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' });
