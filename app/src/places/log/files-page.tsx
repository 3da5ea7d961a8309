/**
 * Open files: the log and the whole bar to take along; roast lists, orders, logs and an archive to read in. What comes in
 * is looked at first.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { useMutation } from '@tanstack/react-query';
import { addressWith, type RouteId } from '@even-kettle/core/contract/addresses';
import type { RowsIn } from '@even-kettle/core/contract';
import { useHere } from '../../client/bar-context';
import { useMay } from '../../client/may';
import { chooseFile } from '../../ui/files';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Halves, Page, Row } from '../../ui/page';
import { Switch } from '../../ui/switch';
import { Subheading, Text } from '../../ui/text';
import { PageHead } from '../../parts/loaded';
import { LargeFileCard } from './large-file';
import { refusalWords } from './refusal-words';
import { WORDS } from './words';

type Query = { guests?: 'without' };
const OUT: [name: string, path: (query: Query) => string, what: string, route: RouteId][] = [
  [WORDS.logCsv, (query) => addressWith('getLogCsv', {}, query), WORDS.csvHint, 'getLogCsv'],
  [
    WORDS.logJsonLines,
    (query) => addressWith('getLogJsonl', {}, query),
    WORDS.wholeRecordsHint,
    'getLogJsonl',
  ],
  [WORDS.careCalendar, () => addressWith('getCareCalendar'), WORDS.clothsAndCoffeesHint, 'getCareCalendar'],
  [WORDS.wholeBar, (query) => addressWith('getArchive', {}, query), WORDS.archiveHint, 'getArchive'],
];

export function FilesPage() {
  const may = useMay();
  const [isWithout, setWithout] = useState(false);
  const query: Query = isWithout ? { guests: 'without' } : {};
  return (
    <Page wide>
      <PageHead title={WORDS.files} />
      <Halves
        first={
          <>
            <Card>
              <Subheading>{WORDS.toTakeAlong}</Subheading>
              <Switch label={WORDS.leaveOutGuests} on={isWithout} onChange={setWithout} />
              {OUT.filter(([, , , route]) => may(route)).map(([name, path, what]) => (
                <Row key={name}>
                  <View style={{ flex: 1 }}>
                    <Text>{name}</Text>
                    <Text size="small" quiet>
                      {what}
                    </Text>
                  </View>
                  <Button
                    label={WORDS.save}
                    says={WORDS.saveForName(name)}
                    onPress={() => window.location.assign(path(query))}
                  />
                </Row>
              ))}
            </Card>
            {may('postRoasts') ? (
              <TableCard what="roasts" title={WORDS.roastList} columns={WORDS.coffeeColumns} />
            ) : null}
            <TableCard what="orders" title={WORDS.ordersLabel} columns={WORDS.orderColumns} />
          </>
        }
        second={
          !may('postImport') ? (
            <Text quiet>{WORDS.leadReadsIn}</Text>
          ) : (
            <>
              <LargeFileCard kind="log" title={WORDS.logFromCsv}>
                {WORDS.importLogHint}
              </LargeFileCard>
              <LargeFileCard kind="archive" title={WORDS.wholeBarFromFile}>
                {WORDS.restoreHint}
              </LargeFileCard>
            </>
          )
        }
      />
    </Page>
  );
}

function TableCard({ what, title, columns }: { what: 'roasts' | 'orders'; title: string; columns: string }) {
  const { api } = useHere();
  const [text, setText] = useState<string | null>(null);
  const send = useMutation({
    mutationFn: (take: boolean) => api.tableIn(what, text!, take),
  });
  const theme = useMutation({
    mutationFn: async () => {
      const file = await chooseFile('.csv,text/csv');
      if (!file) return null;
      const read = await file.text();
      setText(read);
      send.reset();
      return api.tableIn(what, read, false);
    },
  });
  const seen: RowsIn | null | undefined = send.data ?? theme.data;
  const wrong = seen?.rows.filter(({ ok }) => !ok).length ?? 0;
  const error = send.error ?? theme.error;
  return (
    <Card>
      <Subheading>
        {title}
        {WORDS.fromCsv}
      </Subheading>
      <Text size="small" quiet>
        {WORDS.firstLineNames(columns)}
      </Text>
      <Button
        label={WORDS.chooseAFile}
        says={WORDS.chooseFileFor(title)}
        onPress={() => theme.mutate()}
        style={{ alignSelf: 'flex-start' }}
      />
      {error ? <Text role="alert">{refusalWords(error)}</Text> : null}
      {seen ? (
        <View style={{ gap: 4 }}>
          {seen.rows.slice(0, 40).map((row) => (
            <Row key={`${row.line} ${row.ok}`} style={{ alignItems: 'flex-start' }}>
              <Text size="small" quiet style={{ width: 52 }}>
                {WORDS.line(row.line)}
              </Text>
              <Text size="small" bold={!row.ok} style={{ flex: 1 }}>
                {row.ok ? row.shows : WORDS.notSo(row.reason)}
              </Text>
            </Row>
          ))}
          {seen.taken ? (
            <Text bold>{WORDS.allLinesWereTaken(seen.rows.length)}</Text>
          ) : (
            <Button
              kind="main"
              label={wrong > 0 ? WORDS.toMendFirst(wrong) : WORDS.importAll(seen.rows.length)}
              disabled={wrong > 0 || seen.rows.length === 0 || send.isPending}
              onPress={() => send.mutate(true)}
            />
          )}
        </View>
      ) : null}
    </Card>
  );
}
