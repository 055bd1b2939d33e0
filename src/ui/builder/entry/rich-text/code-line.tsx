'use client';

import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';

/** Says in which language the code at hand is, so that pages colour it. */
export function CodeLine({ editor }: { editor: Editor }) {
  const language = useEditorState({
    editor,
    selector: ({ editor: e }) => String(e.getAttributes('codeBlock').language ?? ''),
  });
  return (
    <label className="flex items-center gap-2 border-b border-rule p-2">
      Language of this code
      <input
        className="control !w-40"
        placeholder="js, python, yaml …"
        value={language}
        onChange={(e) =>
          editor.commands.updateAttributes('codeBlock', { language: e.target.value || null })
        }
      />
    </label>
  );
}
