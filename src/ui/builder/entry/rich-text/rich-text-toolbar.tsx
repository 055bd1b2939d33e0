'use client';

import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { Toolbar } from 'radix-ui';
import { useState } from 'react';
import type { TextOffer } from '@/server/queries/text-offer.ts';
import { EntryPicker } from '../../entry-picker.tsx';
import type { FoundEntry } from '@/server/queries/offers.ts';
import type { ControlProps } from '../controls/definition.ts';
import { CodeLine } from './code-line.tsx';
import { knownIn } from './extensions.ts';
import { LinkLine } from './link-line.tsx';
import { PictureLine } from './picture-line.tsx';
import { PlaceMenu, StyleMenus } from './place-menu.tsx';
import { ToolButton } from './tool-button.tsx';
import { TOOLS } from './tools.ts';

type Asking = 'link' | 'picture' | 'entry';

interface Props {
  editor: Editor;
  text: TextOffer;
  props: ControlProps;
  /** Says what an entry that is named now is called. */
  onNamed: (entry: FoundEntry) => void;
}

/** What the words in a rich text field can be made into, and what can stand among them. */
export function RichTextToolbar({ editor, text, props, onNamed }: Props) {
  const [asking, setAsking] = useState<Asking | null>(null);
  const toggle = (what: Asking): void => setAsking(asking === what ? null : what);
  const known = knownIn(null, text);
  const tools = TOOLS.filter(
    ({ mark, block, level }) =>
      (mark === undefined || known.mark(mark)) &&
      (block === undefined || known.block(block)) &&
      // The page's own title is the first; another one is offered where a form lets it in by name.
      (level === undefined ||
        (level > 1 ? known.levels.some((l) => l === level) : text.levels?.includes(level))),
  );
  const state = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      active: tools.map((tool) => tool.active(e)),
      offered: tools.map((tool) => tool.offered?.(e) ?? true),
      link: e.isActive('link'),
      code: e.isActive('codeBlock'),
      undo: e.can().undo(),
      redo: e.can().redo(),
    }),
  });
  const chain = () => editor.chain().focus();
  const done = (): void => setAsking(null);
  return (
    <>
      <Toolbar.Root
        aria-label={`Form of ${props.field.label}`}
        className="flex flex-wrap border-b border-rule text-table"
      >
        {tools.map(
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
        {known.mark('link') && (
          <ToolButton pressed={state.link || asking === 'link'} onPress={() => toggle('link')}>
            Link
          </ToolButton>
        )}
        {known.block('image') && (
          <ToolButton pressed={asking === 'picture'} onPress={() => toggle('picture')}>
            Picture
          </ToolButton>
        )}
        {known.block('entry') && (
          <ToolButton pressed={asking === 'entry'} onPress={() => toggle('entry')}>
            Entry
          </ToolButton>
        )}
        {known.block('part') && <PlaceMenu editor={editor} parts={text.parts} />}
        <StyleMenus editor={editor} styles={text.styles} />
        <ToolButton disabled={!state.undo} onPress={() => chain().undo().run()}>
          Undo
        </ToolButton>
        <ToolButton disabled={!state.redo} onPress={() => chain().redo().run()}>
          Redo
        </ToolButton>
      </Toolbar.Root>
      {state.code && <CodeLine editor={editor} />}
      {asking && <Asked {...{ asking, editor, props, onNamed, done }} />}
    </>
  );
}

/** What a button asks for, under the toolbar. */
function Asked({
  asking,
  editor,
  props: { id, now, entry: own },
  onNamed,
  done,
}: Omit<Props, 'text'> & { asking: Asking; done: () => void }) {
  if (asking === 'link')
    return <LinkLine editor={editor} at={now} onNamed={onNamed} onDone={done} />;
  if (asking === 'picture') return <PictureLine editor={editor} onDone={done} />;
  return (
    <div className="border-b border-rule p-2">
      <EntryPicker
        id={`${id}-place-entry`}
        label="Which entry, by its name"
        types={null}
        at={now}
        without={own}
        onPick={(entry) => {
          onNamed(entry);
          const content = { type: 'entry', attrs: { entry: entry.id } };
          editor.chain().focus().insertContent(content).run();
          done();
        }}
      />
    </div>
  );
}
