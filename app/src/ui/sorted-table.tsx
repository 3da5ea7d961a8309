/**
 * The table itself: TanStack's model drawn with Paper's DataTable. Loaded when the first table is shown.
 */
import { useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { DataTable } from 'react-native-paper';
import {
  createPaginatedRowModel,
  createSortedRowModel,
  rowPaginationFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from '@tanstack/react-table';
import { Button } from './button';
import { Row } from './page';
import { Touch } from './touch';
import { Icon } from './icons';
import { Text } from './text';
import { TOUCH } from './theme';
import type { TableProps } from './table';
import { useTheme } from './use-theme';
import { WORDS } from './words';

const features = tableFeatures({
  rowSortingFeature,
  rowPaginationFeature,
  sortedRowModel: createSortedRowModel(),
  paginatedRowModel: createPaginatedRowModel(),
});
/** A column is never narrower than this, pixels; a table that has no room scrolls by itself. */
const COLUMN = 92;

export default function SortedTable({ label, columns, rows, pageSize = 12 }: TableProps<RowData>) {
  const theme = useTheme();
  const [sorting, setSorting] = useState<{ id: string; desc: boolean }[]>([]);
  const [pagination, setPagination] = useState({ pageIndex: 0, pageSize });
  const defs = useMemo(
    (): ColumnDef<typeof features, RowData>[] =>
      columns.map(({ name, value }) => ({
        id: name,
        accessorFn: (row: RowData) => value(row) ?? undefined,
        sortUndefined: 'last' as const,
      })),
    [columns],
  );
  const data = useMemo(() => [...rows], [rows]);
  const table = useTable({
    features,
    columns: defs,
    data,
    state: { sorting, pagination },
    onSortingChange: setSorting,
    onPaginationChange: setPagination,
  });
  const pages = table.getPageCount();
  const width = Math.max(columns.length * COLUMN, 260);
  return (
    <View>
      <ScrollView horizontal tabIndex={0} contentContainerStyle={{ flexGrow: 1 }}>
        <DataTable role="table" aria-label={label} style={{ minWidth: width }}>
          <View role="row" style={{ flexDirection: 'row', borderBottomWidth: 1, borderColor: theme.rim }}>
            {columns.map(({ name, numeric = false }) => {
              const sorted = sorting.find(({ id }) => id === name);
              return (
                <View
                  key={name}
                  role="columnheader"
                  aria-label={name}
                  {...{ 'aria-sort': sorted ? (sorted.desc ? 'descending' : 'ascending') : 'none' }}
                  style={{ flex: 1, minWidth: COLUMN }}
                >
                  <Touch
                    role="button"
                    aria-label={WORDS.sortBy(name)}
                    onPress={() => {
                      setSorting(sorted?.desc ? [] : [{ id: name, desc: sorted !== undefined }]);
                      setPagination({ pageIndex: 0, pageSize });
                    }}
                    style={{
                      minHeight: TOUCH,
                      flexDirection: 'row',
                      alignItems: 'center',
                      justifyContent: numeric ? 'flex-end' : 'flex-start',
                      gap: 2,
                      paddingHorizontal: 6,
                    }}
                  >
                    {sorted ? (
                      <Icon name={sorted.desc ? 'chevron-down' : 'chevron-up'} size={16} color={theme.ink} />
                    ) : null}
                    <Text size="small" bold={sorted !== undefined} style={{ flexShrink: 1 }}>
                      {name}
                    </Text>
                  </Touch>
                </View>
              );
            })}
          </View>
          {table.getRowModel().rows.map((row) => (
            <View
              key={row.id}
              role="row"
              style={{ flexDirection: 'row', minHeight: 40, borderBottomWidth: 1, borderColor: theme.rim }}
            >
              {columns.map(({ name, value, show, numeric = false }) => (
                <View
                  key={name}
                  role="cell"
                  style={{
                    flex: 1,
                    minWidth: COLUMN,
                    justifyContent: 'center',
                    alignItems: numeric ? 'flex-end' : 'flex-start',
                    paddingHorizontal: 6,
                  }}
                >
                  <Text size="small">{show ? show(row.original) : String(value(row.original) ?? '')}</Text>
                </View>
              ))}
            </View>
          ))}
        </DataTable>
      </ScrollView>
      {pages > 1 ? (
        <Row style={{ justifyContent: 'flex-end' }}>
          <Text size="small" quiet>
            {WORDS.of(pagination.pageIndex + 1, pages)}
          </Text>
          {(
            [
              ['back', WORDS.previousPage, -1, pagination.pageIndex === 0],
              ['chevron', WORDS.nextPage, 1, pagination.pageIndex >= pages - 1],
            ] as const
          ).map(([icon, words, by, atEnd]) => (
            <Button
              key={icon}
              icon={icon}
              label=""
              kind="bare"
              says={WORDS.ofForPart(words, label)}
              disabled={atEnd}
              onPress={() => setPagination({ pageIndex: pagination.pageIndex + by, pageSize })}
            />
          ))}
        </Row>
      ) : null}
    </View>
  );
}
