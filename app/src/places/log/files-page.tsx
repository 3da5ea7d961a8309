/**
 * Open files: the log and the whole bar to take along; roast lists, orders, logs and an archive to read in. What comes in
 * is looked at first.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { useMutation } from '@tanstack/react-query';
import { addressWith } from '@even-kettle/core/contract/addresses';
import type { RowsIn } from '@even-kettle/core/contract';
import { useHere } from '../../client/bar-context';
import { chooseFile } from '../../ui/files';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Halves, Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { PageHead } from './loaded';
import { LargeFileCard } from './large-file';
import { refusalWords } from './refusal-words';

const OUT: [name: string, path: string, what: string][] = [
  ['Log, CSV', addressWith('getLogCsv'), 'a line a brew, for a spreadsheet'],
  ['Log, JSON Lines', addressWith('getLogJsonl'), 'whole records, a line each'],
  ['Care calendar', addressWith('getCareCalendar'), 'cloths to boil, coffees at their best'],
  ['Whole bar', addressWith('getArchive'), 'everything; an empty bar reads it back'],
];

export function FilesPage() {
  return (
    <Page wide>
      <PageHead title="Files" />
      <Halves
        first={
          <>
            <Card>
              <Subheading>To take along</Subheading>
              {OUT.map(([name, path, what]) => (
                <Row key={path}>
                  <View style={{ flex: 1 }}>
                    <Text>{name}</Text>
                    <Text size="small" quiet>
                      {what}
                    </Text>
                  </View>
                  <Button label="Save" says={`Save: ${name}`} onPress={() => window.location.assign(path)} />
                </Row>
              ))}
            </Card>
            <TableCard
              what="roasts"
              title="Roast list"
              columns="coffee, roast; if you have them roasted_on, notes, decaf"
            />
            <TableCard
              what="orders"
              title="Orders"
              columns="coffee, recipe, ml; if you have them guest, order"
            />
          </>
        }
        second={
          <>
            <LargeFileCard kind="log" title="Log from elsewhere, from CSV">
              Brews that were written down before, or at another bar. The first line names the columns: ended,
              coffee, recipe, dose_g; as many of the log’s own columns as you have.
            </LargeFileCard>
            <LargeFileCard kind="archive" title="Whole bar, from its file">
              Into a bar whose log is empty. All of it is checked before any of it is taken.
            </LargeFileCard>
          </>
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
      <Subheading>{title}, from CSV</Subheading>
      <Text size="small" quiet>
        The first line names the columns: {columns}.
      </Text>
      <Button
        label="Choose a file"
        says={`Choose a file: ${title}`}
        onPress={() => theme.mutate()}
        style={{ alignSelf: 'flex-start' }}
      />
      {error ? <Text role="alert">{refusalWords(error)}</Text> : null}
      {seen ? (
        <View style={{ gap: 4 }}>
          {seen.rows.slice(0, 40).map((row) => (
            <Row key={`${row.line} ${row.ok}`} style={{ alignItems: 'flex-start' }}>
              <Text size="small" quiet style={{ width: 52 }}>
                line {row.line}
              </Text>
              <Text size="small" bold={!row.ok} style={{ flex: 1 }}>
                {row.ok ? row.shows : `Not so: ${row.reason}`}
              </Text>
            </Row>
          ))}
          {seen.taken ? (
            <Text bold>All {seen.rows.length} lines were taken.</Text>
          ) : (
            <Button
              kind="main"
              label={wrong > 0 ? `${wrong} to mend first` : `Import all ${seen.rows.length}`}
              disabled={wrong > 0 || seen.rows.length === 0 || send.isPending}
              onPress={() => send.mutate(true)}
            />
          )}
        </View>
      ) : null}
    </Card>
  );
}
