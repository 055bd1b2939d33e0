'use client';

import type { Editor } from '@tiptap/core';
import { useId, useState } from 'react';
import { isSafeLink } from '@/core/link.ts';
import type { FoundEntry } from '@/server/queries/offers.ts';
import { EntryPicker } from '../../entry-picker.tsx';

/** Where the selected words lead: an address, or an entry found by its name. */
export function LinkLine({
  editor,
  at,
  onNamed,
  onDone,
}: {
  editor: Editor;
  at: number;
  onNamed: (entry: FoundEntry) => void;
  onDone: () => void;
}) {
  const [href, setHref] = useState(String(editor.getAttributes('link').href ?? ''));
  const finder = useId();
  const { apply, remove } = linkActs(editor, onDone);
  const safe = href.trim() !== '' && isSafeLink(href);
  return (
    <div className="grid gap-2 border-b border-rule p-2 sm:grid-cols-2">
      <div>
        <input
          autoFocus
          aria-label="Where the selected words lead"
          placeholder="/path of this site, or https://…"
          className="control !text-table"
          value={href}
          onChange={(e) => setHref(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Escape') onDone();
            if (e.key !== 'Enter') return;
            e.preventDefault();
            if (safe) apply({ href }, href);
          }}
        />
        <div className="mt-1 flex flex-wrap gap-2">
          <button
            type="button"
            className="button"
            disabled={!safe}
            onClick={() => apply({ href }, href)}
          >
            Set link
          </button>
          {editor.isActive('link') && (
            <button type="button" className="button" onClick={remove}>
              Take link away
            </button>
          )}
        </div>
        {href !== '' && !safe && (
          <p className="text-alarm">A link leads to a path, http(s), mailto or tel.</p>
        )}
      </div>
      <EntryPicker
        id={finder}
        label="Or to an entry, by name"
        types={null}
        at={at}
        onPick={(entry) => {
          onNamed(entry);
          apply({ entry: entry.id }, entry.name);
        }}
      />
    </div>
  );
}

/** What can be done with a link at the words that are selected. */
function linkActs(editor: Editor, onDone: () => void) {
  const apply = (to: { href: string } | { entry: string }, words: string): void => {
    const chain = editor.chain().focus();
    const attrs = { href: null, entry: null, ...to };
    // Without words to lead anywhere, the address or the name stands for itself.
    if (editor.state.selection.empty && !editor.isActive('link'))
      chain.insertContent({ type: 'text', text: words, marks: [{ type: 'link', attrs }] }).run();
    else chain.extendMarkRange('link').setMark('link', attrs).run();
    onDone();
  };
  const remove = (): void => {
    editor.chain().focus().extendMarkRange('link').unsetMark('link').run();
    onDone();
  };
  return { apply, remove };
}
