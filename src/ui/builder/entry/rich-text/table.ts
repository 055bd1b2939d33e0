import { type AnyExtension, type JSONContent, Node } from '@tiptap/core';
import type { Schema } from '@tiptap/pm/model';
import { TextSelection, type Transaction } from '@tiptap/pm/state';
import { addRowAfter, goToNextCell, tableEditing } from '@tiptap/pm/tables';

/** What the nodes of a table are to the editor's table commands. */
const ROLES: Record<string, string> = {
  table: 'table',
  tableRow: 'row',
  tableCell: 'cell',
  tableHeader: 'header_cell',
};

const cell = (name: string, tag: string): Node =>
  Node.create({
    name,
    content: 'block+',
    isolating: true,
    addAttributes: () => ({
      colspan: { default: 1 },
      rowspan: { default: 1 },
      colwidth: { default: null },
      align: { default: null, rendered: false },
    }),
    parseHTML: () => [{ tag }],
    renderHTML: () => [tag, 0],
  });

/** Tables, with the nodes of rich text documents. */
export const TABLE: AnyExtension[] = [
  Node.create({
    name: 'table',
    group: 'block',
    content: 'tableRow+',
    isolating: true,
    parseHTML: () => [{ tag: 'table' }],
    renderHTML: () => ['table', ['tbody', 0]],
    extendNodeSchema: ({ name }) => (name in ROLES ? { tableRole: ROLES[name] } : {}),
    addProseMirrorPlugins: () => [tableEditing()],
    // From cell to cell; past the last one a row is added.
    addKeyboardShortcuts: () => ({
      Tab: ({ editor }) => {
        const { state, view } = editor;
        if (!editor.isActive('table')) return false;
        if (goToNextCell(1)(state, view.dispatch)) return true;
        addRowAfter(state, view.dispatch);
        return goToNextCell(1)(view.state, view.dispatch);
      },
      'Shift-Tab': ({ editor: { state, view } }) => goToNextCell(-1)(state, view.dispatch),
    }),
  }),
  Node.create({
    name: 'tableRow',
    content: '(tableCell | tableHeader)*',
    parseHTML: () => [{ tag: 'tr' }],
    renderHTML: () => ['tr', 0],
  }),
  cell('tableCell', 'td'),
  cell('tableHeader', 'th'),
];

/** Puts a blank table with a row of headings where the selection is, and goes to its first cell. */
export function placeTable(tr: Transaction, schema: Schema): boolean {
  const within = tr.selection.from + 1;
  tr.replaceSelectionWith(schema.nodeFromJSON(blankTable(3, 2)))
    .scrollIntoView()
    .setSelection(TextSelection.near(tr.doc.resolve(within)));
  return true;
}

function blankTable(rows: number, columns: number): JSONContent {
  const row = (type: string): JSONContent => ({
    type: 'tableRow',
    content: Array.from({ length: columns }, () => ({ type, content: [{ type: 'paragraph' }] })),
  });
  const body = Array.from({ length: rows - 1 }, () => row('tableCell'));
  return { type: 'table', content: [row('tableHeader'), ...body] };
}
