import type { Editor } from '@tiptap/core';
import {
  addColumnAfter,
  addRowAfter,
  deleteColumn,
  deleteRow,
  deleteTable,
  toggleHeaderCell,
} from '@tiptap/pm/tables';
import { placeTable } from './table.ts';

type Chain = ReturnType<Editor['chain']>;

/** One thing that the words can be made into. */
export interface Tool {
  label: string;
  active: (editor: Editor) => boolean;
  run: (chain: Chain) => Chain;
  /** The mark, or the block, that a text must let in for it. */
  mark?: string;
  block?: string;
  level?: number;
  /** Whether it is offered where the words stand. */
  offered?: (editor: Editor) => boolean;
}

const inTable = (editor: Editor): boolean => editor.isActive('table');
const never = (): boolean => false;
const byTable =
  (act: typeof addRowAfter) =>
  (chain: Chain): Chain =>
    chain.command(({ state, dispatch }) => act(state, dispatch));
const ofTable = (label: string, act: typeof addRowAfter): Tool => ({
  ...{ label, block: 'table', active: never, offered: inTable, run: byTable(act) },
});
const mark = (label: string, name: string): Tool => ({
  ...{ label, mark: name },
  active: (e) => e.isActive(name),
  run: (c) => c.toggleMark(name),
});
const heading = (label: string, level: 1 | 2 | 3 | 4 | 5 | 6): Tool => ({
  ...{ label, block: 'heading', level },
  active: (e) => e.isActive('heading', { level }),
  run: (c) => c.toggleHeading({ level }),
});

/** Everything that words can be made into, in the order in which it is offered. */
export const TOOLS: readonly Tool[] = [
  mark('Bold', 'bold'),
  mark('Italic', 'italic'),
  mark('Underlined', 'underline'),
  mark('Struck', 'strike'),
  mark('Code', 'code'),
  heading('Heading 1', 1),
  heading('Heading', 2),
  heading('Subheading', 3),
  heading('Heading 4', 4),
  {
    label: 'List',
    block: 'bulletList',
    active: (e) => e.isActive('bulletList'),
    run: (c) => c.toggleBulletList(),
  },
  {
    label: 'Numbered list',
    block: 'orderedList',
    active: (e) => e.isActive('orderedList'),
    run: (c) => c.toggleOrderedList(),
  },
  {
    label: 'Quote',
    block: 'blockquote',
    active: (e) => e.isActive('blockquote'),
    run: (c) => c.toggleBlockquote(),
  },
  {
    label: 'Code block',
    block: 'codeBlock',
    active: (e) => e.isActive('codeBlock'),
    run: (c) => c.toggleCodeBlock(),
  },
  {
    label: 'Divider',
    block: 'horizontalRule',
    active: never,
    run: (c) => c.setHorizontalRule(),
  },
  {
    label: 'Table',
    block: 'table',
    active: inTable,
    offered: (e) => !inTable(e),
    run: (c) => c.command(({ tr, state }) => placeTable(tr, state.schema)),
  },
  ofTable('Add row', addRowAfter),
  ofTable('Add column', addColumnAfter),
  ofTable('Header cell', toggleHeaderCell),
  ofTable('Remove row', deleteRow),
  ofTable('Remove column', deleteColumn),
  ofTable('Remove table', deleteTable),
];
