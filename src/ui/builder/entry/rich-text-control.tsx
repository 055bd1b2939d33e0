'use client';

import { type Editor, type JSONContent, Node } from '@tiptap/core';
import Image from '@tiptap/extension-image';
import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useEffect, useRef } from 'react';
import { RichTextToolbar } from './rich-text-toolbar.tsx';

// Tables can be read, kept and their cells written in; the nodes are those of the documents.
const cell = (name: string, tag: string): Node =>
  Node.create({
    name,
    content: 'block+',
    isolating: true,
    parseHTML: () => [{ tag }],
    renderHTML: () => [tag, 0],
  });
const TABLE = [
  Node.create({
    name: 'table',
    group: 'block',
    content: 'tableRow+',
    isolating: true,
    parseHTML: () => [{ tag: 'table' }],
    renderHTML: () => ['table', ['tbody', 0]],
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
const BLANK = { type: 'doc', content: [{ type: 'paragraph' }] };

/** A rich text field's control. */
export function RichTextControl({
  id,
  value,
  readOnly,
  onChange,
  label,
}: {
  id: string;
  value: unknown;
  readOnly: boolean;
  onChange: (value: unknown) => void;
  label: string;
}) {
  const known = useRef(value);
  const editor = useEditor({
    extensions: [StarterKit.configure({ link: { openOnClick: false } }), Image, ...TABLE],
    content: (value ?? BLANK) as JSONContent,
    editable: !readOnly,
    immediatelyRender: false,
    editorProps: {
      attributes: { id, 'aria-label': label, role: 'textbox', 'aria-multiline': 'true' },
    },
    // The editor changes itself too, as when it keeps a blank paragraph at its end; that is no change of the words.
    onUpdate: ({ editor: e }) => differs(e, known.current) && onChange(documentOf(e)),
  });
  // What comes from elsewhere, words brought back say, is put in place of what stands here.
  useEffect(() => {
    known.current = value;
    if (editor && differs(editor, value))
      editor.commands.setContent((value ?? BLANK) as JSONContent, { emitUpdate: false });
  }, [editor, value]);
  return (
    <div className="rich">
      {!readOnly && editor && <RichTextToolbar editor={editor} label={label} />}
      <EditorContent editor={editor} />
    </div>
  );
}

function differs(editor: Editor, value: unknown): boolean {
  return JSON.stringify(documentOf(editor)) !== JSON.stringify(written(editor, value));
}

/** What an editor holds, without the blank paragraphs it keeps at the end to write in; null where that is nothing. */
function documentOf(editor: Editor): JSONContent | null {
  return editor.isEmpty ? null : trimmed(editor.getJSON());
}

/** A value as the editor would write it: attributes and all. */
function written(editor: Editor, value: unknown): JSONContent | null {
  return value === null || value === undefined
    ? null
    : trimmed(editor.schema.nodeFromJSON(value).toJSON() as JSONContent);
}

function trimmed(doc: JSONContent): JSONContent {
  const content = [...(doc.content ?? [])];
  while (
    content.length > 1 &&
    content.at(-1)?.type === 'paragraph' &&
    !content.at(-1)?.content?.length
  )
    content.pop();
  return { ...doc, content };
}
