'use client';

import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { type ReactNode, useState } from 'react';
import { isSafeLink } from '@/core/rich-text.ts';

/** What the words in a rich text field can be made into. */
export function RichTextToolbar({ editor, label }: { editor: Editor; label: string }) {
  const [linking, setLinking] = useState(false);
  const active = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      bold: e.isActive('bold'),
      italic: e.isActive('italic'),
      heading: e.isActive('heading', { level: 2 }),
      list: e.isActive('bulletList'),
      quote: e.isActive('blockquote'),
      link: e.isActive('link'),
      undo: e.can().undo(),
      redo: e.can().redo(),
    }),
  });
  const chain = (): ReturnType<Editor['chain']> => editor.chain().focus();
  return (
    <>
      <div
        role="toolbar"
        aria-label={`Form of ${label}`}
        className="flex flex-wrap border-b border-rule text-table"
      >
        <Tool pressed={active.bold} onPress={() => chain().toggleBold().run()}>
          Bold
        </Tool>
        <Tool pressed={active.italic} onPress={() => chain().toggleItalic().run()}>
          Italic
        </Tool>
        <Tool pressed={active.heading} onPress={() => chain().toggleHeading({ level: 2 }).run()}>
          Heading
        </Tool>
        <Tool pressed={active.list} onPress={() => chain().toggleBulletList().run()}>
          List
        </Tool>
        <Tool pressed={active.quote} onPress={() => chain().toggleBlockquote().run()}>
          Quote
        </Tool>
        <Tool pressed={active.link} onPress={() => setLinking(!linking)}>
          Link
        </Tool>
        <Tool disabled={!active.undo} onPress={() => chain().undo().run()}>
          Undo
        </Tool>
        <Tool disabled={!active.redo} onPress={() => chain().redo().run()}>
          Redo
        </Tool>
      </div>
      {linking && <LinkLine editor={editor} onDone={() => setLinking(false)} />}
    </>
  );
}

/** Where the selected words lead. */
function LinkLine({ editor, onDone }: { editor: Editor; onDone: () => void }) {
  const [href, setHref] = useState(String(editor.getAttributes('link').href ?? ''));
  const apply = (): void => {
    editor.chain().focus().extendMarkRange('link').setLink({ href }).run();
    onDone();
  };
  const remove = (): void => {
    editor.chain().focus().extendMarkRange('link').unsetLink().run();
    onDone();
  };
  const safe = isSafeLink(href);
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-rule p-2">
      <input
        autoFocus
        aria-label="Where the selected words lead"
        placeholder="/path of this site, or https://…"
        className="control !w-64 !text-table"
        value={href}
        onChange={(e) => setHref(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') onDone();
          if (e.key !== 'Enter') return;
          e.preventDefault();
          if (safe) apply();
        }}
      />
      <button type="button" className="button" disabled={!safe} onClick={apply}>
        Set link
      </button>
      {editor.isActive('link') && (
        <button type="button" className="button" onClick={remove}>
          Take link away
        </button>
      )}
      {href !== '' && !safe && (
        <span className="text-alarm">A link leads to a path, http(s), mailto or tel.</span>
      )}
    </div>
  );
}

/** Keeps the selection when pressed with the mouse, and works by key. */
function Tool({
  pressed,
  disabled,
  onPress,
  children,
}: {
  pressed?: boolean;
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
