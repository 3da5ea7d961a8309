/**
 * A table of many columns, sorted by a tap on a column's head and shown a page at a time.
 */
import { Suspense, lazy, type ReactNode } from 'react';
import { loadSortedTable } from './load-parts';
import { Loading } from './notice';

export type Column<Row extends object> = {
  name: string;
  /** What the column is sorted by; a text or a number. */
  value: (row: Row) => string | number | null;
  /** What stands in a cell, where it is not the value itself. */
  show?: (row: Row) => string;
  numeric?: boolean;
};

export type TableProps<Row extends object> = {
  /** What it lists: "Brews of this run". */
  label: string;
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  /** How many rows stand on a page. */
  pageSize?: number;
};

/** The table comes as a script of its own, when the first one is shown. */
const Sorted = lazy(loadSortedTable) as unknown as <Row extends object>(props: TableProps<Row>) => ReactNode;

export function Table<Row extends object>(props: TableProps<Row>) {
  return (
    <Suspense fallback={<Loading what={props.label} height={200} />}>
      <Sorted {...props} />
    </Suspense>
  );
}
