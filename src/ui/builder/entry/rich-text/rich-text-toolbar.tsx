'use client';

import type { Editor } from '@tiptap/core';
import {
  addColumnAfter,
  addRowAfter,
  deleteColumn,
  deleteRow,
  deleteTable,
} from '@tiptap/pm/tables';
import { useEditorState } from '@tiptap/react';
import { type ReactNode, useState } from 'react';
import { Thumbnails } from '../controls/picture.tsx';
import type { ControlProps } from '../controls/definition.ts';
import { LinkLine } from './link-line.tsx';
import { blankTable } from './table.ts';

type Chain = ReturnType<Editor['chain']>;

/** One thing that the words can be made into. */
interface Tool {
  label: string;
  active: (editor: Editor) => boolean;
  run: (chain: Chain) => Chain;
  /** Whether it is offered where the words stand. */
  offered?: (editor: Editor) => boolean;
}

const inTable = (editor: Editor): boolean => editor.isActive('table');
const never = (): boolean => false;
const byTable =
  (act: typeof addRowAfter) =>
  (chain: Chain): Chain =>
    chain.command(({ state, dispatch }) => act(state, dispatch));

const TOOLS: Tool[] = [
  { label: 'Bold', active: (e) => e.isActive('bold'), run: (c) => c.toggleBold() },
  { label: 'Italic', active: (e) => e.isActive('italic'), run: (c) => c.toggleItalic() },
  {
    label: 'Heading',
    active: (e) => e.isActive('heading', { level: 2 }),
    run: (c) => c.toggleHeading({ level: 2 }),
  },
  {
    label: 'Subheading',
    active: (e) => e.isActive('heading', { level: 3 }),
    run: (c) => c.toggleHeading({ level: 3 }),
  },
  { label: 'List', active: (e) => e.isActive('bulletList'), run: (c) => c.toggleBulletList() },
  {
    label: 'Numbered list',
    active: (e) => e.isActive('orderedList'),
    run: (c) => c.toggleOrderedList(),
  },
  { label: 'Quote', active: (e) => e.isActive('blockquote'), run: (c) => c.toggleBlockquote() },
  {
    label: 'Table',
    active: inTable,
    offered: (e) => !inTable(e),
    run: (c) => c.insertContent(blankTable(3, 2)),
  },
  { label: 'Add row', active: never, offered: inTable, run: byTable(addRowAfter) },
  { label: 'Add column', active: never, offered: inTable, run: byTable(addColumnAfter) },
  { label: 'Remove row', active: never, offered: inTable, run: byTable(deleteRow) },
  { label: 'Remove column', active: never, offered: inTable, run: byTable(deleteColumn) },
  { label: 'Remove table', active: never, offered: inTable, run: byTable(deleteTable) },
];

/** What the words in a rich text field can be made into. */
export function RichTextToolbar({ editor, ...props }: ControlProps & { editor: Editor }) {
  const [asking, setAsking] = useState<'link' | 'picture' | null>(null);
  const toggle = (what: 'link' | 'picture'): void => setAsking(asking === what ? null : what);
  const state = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      active: TOOLS.map((tool) => tool.active(e)),
      offered: TOOLS.map((tool) => tool.offered?.(e) ?? true),
      link: e.isActive('link'),
      undo: e.can().undo(),
      redo: e.can().redo(),
    }),
  });
  const chain = (): Chain => editor.chain().focus();
  const { field } = props;
  return (
    <>
      <div
        role="toolbar"
        aria-label={`Form of ${field.label}`}
        className="flex flex-wrap border-b border-rule text-table"
      >
        {TOOLS.map(
          (tool, i) =>
            state.offered[i] && (
              <ToolButton
                key={tool.label}
                pressed={state.active[i]}
                onPress={() => tool.run(chain()).run()}
              >
                {tool.label}
              </ToolButton>
            ),
        )}
        <ToolButton pressed={state.link || asking === 'link'} onPress={() => toggle('link')}>
          Link
        </ToolButton>
        <ToolButton pressed={asking === 'picture'} onPress={() => toggle('picture')}>
          Picture
        </ToolButton>
        <ToolButton disabled={!state.undo} onPress={() => chain().undo().run()}>
          Undo
        </ToolButton>
        <ToolButton disabled={!state.redo} onPress={() => chain().redo().run()}>
          Redo
        </ToolButton>
      </div>
      {asking === 'link' && (
        <LinkLine editor={editor} at={props.now} onDone={() => setAsking(null)} />
      )}
      {asking === 'picture' && (
        <div className="border-b border-rule p-2">
          <Thumbnails
            options={field.options}
            onPick={(src) => {
              chain().setImage({ src, alt: '' }).run();
              setAsking(null);
            }}
          />
        </div>
      )}
    </>
  );
}

/** Keeps the selection when pressed with the mouse, and works by key. */
function ToolButton({
  pressed,
  disabled,
  onPress,
  children,
}: {
  pressed?: boolean | undefined;
  disabled?: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      disabled={disabled}
      className="h-7 px-2 hover:bg-hover disabled:text-muted aria-pressed:font-semibold aria-pressed:text-spruce"
      onMouseDown={(e) => e.preventDefault()}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
