import { HIT_BEGINS, HIT_ENDS } from '@/core/content/hit.ts';
import type { ContentRow, ContentTable } from '@/server/queries/content.ts';
import type { VirtualColumn } from '@/ui/primitives/virtual-table.tsx';
import { Moves } from '@/ui/primitives/moves.tsx';
import { dayWords, entryHref } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { EditCell, type SaveCell } from './edit-cell.tsx';
import { LifeBars, LifeHead, type LifeScale } from './life-bar.tsx';

type Head = VirtualColumn<ContentRow>;
type Order = 'ascending' | 'descending';

/** What the columns of the content table are made from. */
export interface ColumnsOf {
  table: ContentTable;
  scale: LifeScale;
  zone: string;
  /** What the languages of the site are called, its own first. */
  languages: readonly string[];
  showsType: boolean;
  /** Name of a column, "-" before it where it is turned round; null where by fit. */
  sort: string | null;
  onSort: (sort: string) => void;
  now: number;
  total: number;
  /** Puts an entry before the row at a place; null where rows are not put in order by hand. */
  onMove: ((entry: string, before: number) => void) | null;
  /** Null where nothing can be changed. */
  onSave: SaveCell | null;
}

/** The columns of the content table: what every entry has, and what was chosen. */
export function contentHeads(of: ColumnsOf): Head[] {
  return [...moveHeads(of), ...nameHeads(of), ...chosenHeads(of), ...stateHeads(of)];
}

/** Where rows are put in order by hand: a handle to drag each by, and keys that move it. */
function moveHeads({ onMove, total }: ColumnsOf): Head[] {
  if (!onMove) return [];
  const head: Head = {
    key: 'move',
    head: <span className="sr-only">Move</span>,
    width: '120px',
    className: 'whitespace-nowrap',
    cell: ({ id, name }, index) => (
      <span className="flex items-center">
        <span
          draggable
          aria-hidden
          title="Drag it to another place"
          className="cursor-grab px-1 text-muted select-none"
          onDragStart={(e) => e.dataTransfer.setData('text/plain', id)}
        >
          ⠿
        </span>
        <Moves
          of={name}
          isFirst={index === 0}
          isLast={index === total - 1}
          onMove={(by) => onMove(id, by < 0 ? index - 1 : index + 2)}
        />
      </span>
    ),
  };
  return [head];
}

function nameHeads(of: ColumnsOf): Head[] {
  const name: Head = {
    key: 'name',
    ...sortable('@name', 'Name', 'ascending', of),
    className: 'truncate',
    cell: ({ id, name: words, hit }) => (
      <>
        <span title={words}>
          <ClockLink
            href={entryHref(id)}
            className="block truncate font-[550] text-ink hover:underline"
          >
            {words}
          </ClockLink>
        </span>
        {hit !== null && (
          <span className="block truncate text-note text-muted">
            <Hit words={hit} />
          </span>
        )}
      </>
    ),
  };
  const type: Head = {
    key: 'type',
    head: 'Type',
    width: '112px',
    className: 'truncate text-muted',
    cell: ({ typeLabel }) => typeLabel,
  };
  return of.showsType ? [name, type] : [name];
}

/** Words of an entry with those that were searched for marked. */
function Hit({ words }: { words: string }) {
  return words.split(HIT_BEGINS).map((part, i) => {
    const [marked, rest] = i === 0 ? ['', part] : part.split(HIT_ENDS);
    return (
      <span key={i}>
        {marked !== '' && <mark className="bg-transparent font-semibold text-ink">{marked}</mark>}
        {rest}
      </span>
    );
  });
}

function chosenHeads(of: ColumnsOf): Head[] {
  return of.table.columns
    .filter(({ shown }) => shown)
    .map(({ name, label, numeric, sortable: can }) => ({
      key: `column ${name}`,
      ...(can ? sortable(name, label, 'ascending', of) : { head: label }),
      width: numeric ? '112px' : '136px',
      headClassName: `truncate ${numeric ? '!text-right' : ''}`,
      className: `truncate ${numeric ? 'text-right' : ''}`,
      cell: (row) => cellOf(of, name, row),
    }));
}

/** A value as it stands in the table: some can be changed there. */
function cellOf({ table, zone, now, onSave }: ColumnsOf, name: string, row: ContentRow) {
  const field = table.fields.find(({ id }) => id === name);
  if (field && onSave) return <EditCell {...{ row, field, zone, now, onSave }} />;
  return <span title={row.cells[name]}>{row.cells[name]}</span>;
}

function stateHeads(of: ColumnsOf): Head[] {
  const { scale, zone, languages } = of;
  return [
    {
      key: 'state',
      head: 'State',
      width: '144px',
      className: 'truncate',
      cell: ({ state }) => (
        <span className={state === 'scheduled' ? 'text-amber-text' : ''}>{state}</span>
      ),
    },
    {
      key: 'life',
      head: <LifeHead {...{ scale, zone, languages }} />,
      width: '240px',
      headClassName: 'wide-cell',
      className: 'wide-cell',
      cell: (row) => <LifeBars {...{ row, scale }} ownLanguage={languages[0]!} />,
    },
    {
      key: 'address',
      head: 'Address',
      width: '17%',
      headClassName: 'wide-cell',
      className: 'wide-cell truncate text-muted',
      cell: ({ path }) => <span title={path ?? ''}>{path ?? ''}</span>,
    },
    {
      key: 'saved',
      ...sortable('@saved', 'Saved', 'descending', of),
      width: '104px',
      className: 'whitespace-nowrap text-muted',
      cell: ({ saved }) => dayWords(saved, zone),
    },
  ];
}

/** The head of a column that orders the table; pressed again, the other way round. */
function sortable(
  column: string,
  label: string,
  first: Order,
  { sort, onSort }: Pick<ColumnsOf, 'sort' | 'onSort'>,
): Pick<Head, 'head' | 'sort'> {
  const order = orderOf(sort, column);
  const [up, down] = [column, `-${column}`];
  const [one, other] = first === 'ascending' ? [up, down] : [down, up];
  const arrow = { ascending: ' ↑', descending: ' ↓', none: '' }[order];
  return {
    sort: order,
    head: (
      <button
        type="button"
        title={label}
        className={`max-w-full truncate ${order === 'none' ? '' : 'font-semibold text-ink'}`}
        onClick={() => onSort(sort === one ? other : one)}
      >
        {label}
        <span aria-hidden>{arrow}</span>
      </button>
    ),
  };
}

/** How rows are ordered by a column. */
function orderOf(sort: string | null, column: string): Order | 'none' {
  if (sort === column) return 'ascending';
  return sort === `-${column}` ? 'descending' : 'none';
}
