'use client';

import type { Editor, JSONContent } from '@tiptap/core';
import { EditorContent, useEditor } from '@tiptap/react';
import { useEffect, useRef, useState } from 'react';
import { type Removed, type RichNode, normalRichText } from '@/core/rich-text/index.ts';
import { SentFiles } from '../../media/sent-files.tsx';
import { type SendingFiles, useSending } from '../../media/use-sending.ts';
import type { ControlProps } from '../controls/definition.ts';
import { besides, extensionsFor } from './extensions.ts';
import { insertDocument, readPasted } from './paste.ts';
import { RemovedLine } from './removed-line.tsx';
import { RichTextToolbar } from './rich-text-toolbar.tsx';
import { FORMS, type SourceForm, SourceView } from './source-view.tsx';
import { type TextWorld, TextWorldProvider } from './text-world.ts';

const BLANK: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] };
const OPEN: TextWorld['text'] = {
  ...{ type: '', marks: null, blocks: null, levels: null },
  ...{ parts: [], styles: [], names: {}, dark: [] },
};

/**
 * A rich text field's control. What it gives is a plain document of what the field lets in, and what
 * stood there before: the editor is made anew where that changes.
 */
export function RichTextControl(props: ControlProps) {
  const text = props.field.text ?? OPEN;
  return <TextEditor key={besides(props.value, text)} {...props} text={text} />;
}

function TextEditor({ text, ...props }: ControlProps & { text: TextWorld['text'] }) {
  const { field, value, readOnly, invalid, onChange } = props;
  const [removed, setRemoved] = useState<Removed[]>([]);
  const [source, setSource] = useState<SourceForm | null>(null);
  const [found, setFound] = useState<Record<string, string>>({});
  const { editor, sending } = useText(props, text, setRemoved);
  const { zone, now, entry } = props;
  const world = { zone, now, entry, readOnly, text, names: { ...field.names, ...found } };
  return (
    <div className="rich" aria-invalid={invalid || undefined}>
      <TextWorldProvider value={world}>
        {!readOnly && editor && source === null && (
          <RichTextToolbar
            {...{ editor, text, props }}
            onNamed={({ id, name }) => setFound((before) => ({ ...before, [id]: name }))}
          />
        )}
        {source !== null ? (
          <SourceView
            form={source}
            label={field.label}
            field={field.id}
            doc={value}
            world={world}
            onDone={(doc) => {
              setSource(null);
              if (doc !== undefined) onChange(doc);
            }}
          />
        ) : (
          <EditorContent editor={editor} />
        )}
      </TextWorldProvider>
      <SentFiles sending={sending} />
      {removed.length > 0 && (
        <RemovedLine
          removed={removed}
          onUndo={() => {
            editor?.commands.undo();
            setRemoved([]);
          }}
          onDone={() => setRemoved([])}
        />
      )}
      {!readOnly && source === null && text.type !== '' && (
        <div className="flex items-center justify-end border-t border-rule text-note text-muted">
          <span className="mr-auto px-2">Alt F10: what words can be made into</span>
          {(['markdown', 'json'] as const).map((form) => (
            <button
              key={form}
              type="button"
              className="h-7 px-2 hover:bg-hover"
              onClick={() => setSource(form)}
            >
              {`As ${FORMS[form]}`}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

/** The editor of a text, which keeps up with what comes from elsewhere, and the pictures put into it. */
function useText(
  { id, field, value, readOnly, onChange }: ControlProps,
  text: TextWorld['text'],
  onRemoved: (removed: Removed[]) => void,
): { editor: Editor | null; sending: SendingFiles } {
  const made = useRef<Editor | null>(null);
  const sending = useSending(({ id: src }) =>
    made.current?.chain().focus().setImage({ src }).run(),
  );
  const known = useRef(value);
  const [extensions] = useState(() => extensionsFor(value, text));
  const editor = useEditor({
    extensions,
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
        'aria-keyshortcuts': 'Alt+F10',
      },
      handlePaste: (_, event) => take(event.clipboardData),
      handleDrop: (_, event, __, moved) => !moved && drop(event),
    },
    // The editor changes itself too, as when it keeps a blank paragraph at its end; that is no
    // change of the words.
    onUpdate: ({ editor: e }) => differs(e, known.current) && onChange(documentOf(e)),
  });
  function take(data: DataTransfer | null): boolean {
    const html = data?.getData('text/html') ?? '';
    const files = [...(data?.files ?? [])];
    if (files.length > 0 && html === '' && mayHoldPictures(text)) {
      sending.send(files);
      return true;
    }
    if (!editor || html === '') return false;
    const { doc, removed } = readPasted(html, text);
    // What was copied from such an editor, and may stand here, it puts in place better itself.
    if (html.includes('data-pm-slice') && removed.length === 0) return false;
    insertDocument(editor, doc);
    onRemoved(removed);
    return true;
  }
  function drop(event: DragEvent): boolean {
    const at = editor?.view.posAtCoords({ left: event.clientX, top: event.clientY });
    if (!editor || !at) return false;
    const before = editor.state.selection;
    editor.commands.setTextSelection(at.pos);
    if (take(event.dataTransfer)) return true;
    editor.commands.setTextSelection(before);
    return false;
  }
  // What comes from elsewhere, words brought back say, is put in place of what stands here.
  useEffect(() => {
    known.current = value;
    if (editor && differs(editor, value))
      editor.commands.setContent(documentFor(value), { emitUpdate: false });
  }, [editor, value]);
  useEffect(() => {
    made.current = editor;
    editor?.setEditable(!readOnly, false);
  }, [editor, readOnly]);
  return { editor, sending };
}

function mayHoldPictures({ blocks }: TextWorld['text']): boolean {
  return blocks === null || blocks.includes('image');
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
