'use client';

import type { Editor, JSONContent } from '@tiptap/core';
import { EditorContent, useEditor } from '@tiptap/react';
import { useEffect, useRef } from 'react';
import { type RichNode, normalRichText } from '@/core/rich-text.ts';
import type { ControlProps } from '../controls/definition.ts';
import { EXTENSIONS } from './extensions.ts';
import { RichTextToolbar } from './rich-text-toolbar.tsx';

const BLANK: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] };

/**
 * A rich text field's control. What it gives is a plain document of what the site knows, nothing
 * else.
 */
export function RichTextControl(props: ControlProps) {
  const { id, field, value, readOnly, invalid, onChange } = props;
  const known = useRef(value);
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: documentFor(value),
    editable: !readOnly,
    immediatelyRender: false,
    editorProps: {
      attributes: {
        id,
        'aria-label': field.label,
        'aria-describedby': `${id}-notes`,
        role: 'textbox',
        'aria-multiline': 'true',
      },
    },
    // The editor changes itself too, as when it keeps a blank paragraph at its end; that is no
    // change of the words.
    onUpdate: ({ editor: e }) => differs(e, known.current) && onChange(documentOf(e)),
  });
  // What comes from elsewhere, words brought back say, is put in place of what stands here.
  useEffect(() => {
    known.current = value;
    if (editor && differs(editor, value))
      editor.commands.setContent(documentFor(value), { emitUpdate: false });
  }, [editor, value]);
  useEffect(() => {
    editor?.setEditable(!readOnly, false);
  }, [editor, readOnly]);
  return (
    <div className="rich" aria-invalid={invalid || undefined}>
      {!readOnly && editor && <RichTextToolbar editor={editor} {...props} />}
      <EditorContent editor={editor} />
    </div>
  );
}

/** A stored document as the editor takes it; a blank one where there is none. */
function documentFor(value: unknown): JSONContent {
  return normalRichText(value ?? BLANK) as JSONContent;
}

function differs(editor: Editor, value: unknown): boolean {
  return JSON.stringify(documentOf(editor)) !== JSON.stringify(written(editor, value));
}

/**
 * What an editor holds, without the blank paragraphs it keeps at the end to write in; null where
 * that is nothing.
 */
function documentOf(editor: Editor): RichNode | null {
  return editor.isEmpty ? null : trimmed(normalRichText(editor.getJSON()));
}

/** A value as the editor would write it. */
function written(editor: Editor, value: unknown): RichNode | null {
  if (value === null || value === undefined) return null;
  return trimmed(normalRichText(editor.schema.nodeFromJSON(documentFor(value)).toJSON()));
}

function trimmed(doc: RichNode): RichNode {
  const content = [...(doc.content ?? [])];
  const isBlank = (n: RichNode | undefined): boolean =>
    n?.type === 'paragraph' && !n.content?.length;
  while (content.length > 1 && isBlank(content.at(-1))) content.pop();
  return { ...doc, content };
}
