import { Fragment, type ReactNode } from 'react';

/** A column: its head, and what stands in it for a row. */
export interface TableColumn<Row> {
  key: string;
  head: ReactNode;
  cell: (row: Row, index: number) => ReactNode;
  /** Classes of its cells. */
  className?: string;
  headClassName?: string;
  /** How the rows are ordered by it, where they can be. */
  sort?: 'ascending' | 'descending' | 'none';
}

interface Props<Row> {
  columns: TableColumn<Row>[];
  rows: readonly Row[];
  keyOf: (row: Row) => string;
  /** What the table lists, for assistive technology. */
  label: string;
  /** Words that begin a group before a row; null within one. */
  groupOf?: (row: Row, index: number) => string | null;
  /** Whether the head stays in sight. */
  sticky?: boolean;
}

/** Rows of the same sort of thing, in columns; the head is left out where no column has one. */
export function Table<Row>({ columns, rows, keyOf, label, groupOf, sticky }: Props<Row>) {
  return (
    <table className="table" aria-label={label}>
      {columns.some((c) => c.head !== '') && (
        <thead className={sticky ? 'sticky top-0 z-10 bg-paper' : ''}>
          <tr>
            {columns.map(({ key, head, headClassName, sort }) => (
              <th key={key} scope="col" className={headClassName} aria-sort={sort}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row, i) => (
          <Fragment key={keyOf(row)}>
            <GroupHead words={groupOf?.(row, i) ?? null} span={columns.length} />
            <tr>
              {columns.map(({ key, cell, className }) => (
                <td key={key} className={className}>
                  {cell(row, i)}
                </td>
              ))}
            </tr>
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

function GroupHead({ words, span }: { words: string | null; span: number }) {
  if (words === null) return null;
  return (
    <tr>
      <th colSpan={span} scope="rowgroup" className="!pt-3">
        {words}
      </th>
    </tr>
  );
}
