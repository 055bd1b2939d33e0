'use client';

import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { MediaPicker } from '../../media/media-picker.tsx';

/** Places a picture, or says what the selected one shows where that is other than its own words. */
export function PictureLine({ editor, onDone }: { editor: Editor; onDone: () => void }) {
  const selected = useEditorState({
    editor,
    selector: ({ editor: e }) =>
      e.isActive('image') ? (e.getAttributes('image') as { src?: string; alt?: string }) : null,
  });
  return (
    <div className="border-b border-rule p-2">
      {selected && (
        <label className="mb-2 block">
          {`What “${selected.src ?? ''}” shows here; blank for its own words`}
          <input
            className="control mt-1"
            value={selected.alt ?? ''}
            onChange={(e) => editor.commands.updateAttributes('image', { alt: e.target.value })}
          />
        </label>
      )}
      <MediaPicker
        takes={{}}
        onPick={(src) => {
          editor.chain().focus().setImage({ src }).run();
          onDone();
        }}
      />
    </div>
  );
}
