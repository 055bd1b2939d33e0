'use client';

import { Node } from '@tiptap/core';
import Image from '@tiptap/extension-image';
import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';

// Tables can be read, kept and their cells written in; the nodes are those of the documents.
const cell = (name: string, tag: string): Node => Node.create({ name, content: 'block+', isolating: true, parseHTML: () => [{ tag }], renderHTML: () => [tag, 0] });
const TABLE = [
  Node.create({ name: 'table', group: 'block', content: 'tableRow+', isolating: true, parseHTML: () => [{ tag: 'table' }], renderHTML: () => ['table', ['tbody', 0]] }),
  Node.create({ name: 'tableRow', content: '(tableCell | tableHeader)*', parseHTML: () => [{ tag: 'tr' }], renderHTML: () => ['tr', 0] }),
  cell('tableCell', 'td'),
  cell('tableHeader', 'th'),
];

const MARKS = [
  ['Bold', 'bold'],
  ['Italic', 'italic'],
] as const;

/** A rich text field's control. */
export function RichTextControl({ id, value, readOnly, onChange, label }: { id: string; value: unknown; readOnly: boolean; onChange: (value: unknown) => void; label: string }) {
  const editor = useEditor({
    extensions: [StarterKit.configure({ link: { openOnClick: false } }), Image, ...TABLE],
    content: (value ?? { type: 'doc', content: [{ type: 'paragraph' }] }) as object,
    editable: !readOnly,
    immediatelyRender: false,
    editorProps: { attributes: { id, 'aria-label': label, role: 'textbox', 'aria-multiline': 'true' } },
    onUpdate: ({ editor: e }) => onChange(e.isEmpty ? null : e.getJSON()),
  });
  const run = (act: () => boolean) => (event: React.MouseEvent) => {
    event.preventDefault();
    act();
  };
  return (
    <div className="rich">
      {!readOnly && editor && (
        <div role="toolbar" aria-label={`Form of ${label}`} className="flex flex-wrap border-b border-rule text-table">
          {MARKS.map(([words, mark]) => (
            <button key={mark} type="button" className="h-7 px-2" onMouseDown={run(() => editor.chain().focus().toggleMark(mark).run())}>
              {words}
            </button>
          ))}
          <button type="button" className="h-7 px-2" onMouseDown={run(() => editor.chain().focus().toggleHeading({ level: 2 }).run())}>
            Heading
          </button>
          <button type="button" className="h-7 px-2" onMouseDown={run(() => editor.chain().focus().toggleBulletList().run())}>
            List
          </button>
          <button type="button" className="h-7 px-2" onMouseDown={run(() => editor.chain().focus().toggleBlockquote().run())}>
            Quote
          </button>
          <button type="button" className="h-7 px-2" onMouseDown={run(() => editor.chain().focus().undo().run())}>
            Undo
          </button>
        </div>
      )}
      <EditorContent editor={editor} />
    </div>
  );
}
