'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useRef } from 'react';
import type { TableColumn } from './table.tsx';

/** A column of a table of which only the rows in sight are drawn: its width does not follow them. */
export interface VirtualColumn<Row> extends TableColumn<Row> {
  /** CSS width; what is left where it has none. */
  width?: string;
}

interface Props<Row> {
  columns: VirtualColumn<Row>[];
  count: number;
  /** The row at a place; undefined while it is on its way. */
  rowAt: (index: number) => Row | undefined;
  keyOf: (row: Row) => string;
  /** What the table lists, for assistive technology. */
  label: string;
  /** Height of every row, px. */
  rowHeight: number;
  /** Hears which rows are in sight. */
  onSee: (from: number, to: number) => void;
  isChosen?: (row: Row) => boolean;
  /** Puts the row of a key before the one at a place; left out where rows are not moved. */
  onDrop?: ((key: string, index: number) => void) | undefined;
  /** What stands below the last row. */
  children?: ReactNode;
  /** Begins again at the top whenever it changes. */
  listKey: string;
}

/** Rows of the same sort of thing, however many: those in sight are drawn. */
export function VirtualTable<Row>(props: Props<Row>) {
  const { columns, count, rowAt, keyOf, label, rowHeight, onSee, isChosen, onDrop, listKey } =
    props;
  const pane = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- what it gives is read here alone
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => pane.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    initialRect: { width: 1200, height: 800 },
  });
  const items = virtual.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => onSee(from, to), [from, to, onSee]);
  useEffect(() => virtual.measure(), [rowHeight, virtual]);
  useEffect(() => void (pane.current && (pane.current.scrollTop = 0)), [listKey]);
  const above = items[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div ref={pane} tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-4" data-rows>
      <table className="table table-fixed" aria-label={label} aria-rowcount={count + 1}>
        <colgroup>
          {columns.map(({ key, width, className }) => (
            <col key={key} style={{ width }} className={wideOnly(className)} />
          ))}
        </colgroup>
        <thead className="sticky top-0 z-10 bg-paper">
          <tr aria-rowindex={1}>
            {columns.map(({ key, head, headClassName, sort }) => (
              <th key={key} scope="col" className={headClassName} aria-sort={sort}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Gap px={above} span={columns.length} />
          {items.map(({ index }) => {
            const row = rowAt(index);
            return (
              <tr
                key={row === undefined ? `at ${index}` : keyOf(row)}
                aria-rowindex={index + 2}
                data-chosen={row !== undefined && isChosen?.(row) ? '' : undefined}
                style={{ height: rowHeight }}
                onDragOver={onDrop && ((e) => e.preventDefault())}
                onDrop={onDrop && ((e) => onDrop(e.dataTransfer.getData('text/plain'), index))}
              >
                {columns.map(({ key, cell, className }) => (
                  <td key={key} className={className}>
                    {row === undefined ? '' : cell(row, index)}
                  </td>
                ))}
              </tr>
            );
          })}
          <Gap px={below} span={columns.length} />
        </tbody>
      </table>
      {props.children}
    </div>
  );
}

/** A column that is left out of narrow windows is so with its width. */
function wideOnly(className = ''): string | undefined {
  return className.includes('wide-cell') ? 'wide-cell' : undefined;
}

/** Room for the rows that are not drawn. */
function Gap({ px, span }: { px: number; span: number }) {
  if (px <= 0) return null;
  return (
    <tr aria-hidden className="gap">
      <td colSpan={span} style={{ height: px, padding: 0, border: 0 }} />
    </tr>
  );
}
