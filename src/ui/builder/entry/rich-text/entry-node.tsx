'use client';

import { Node } from '@tiptap/core';
import { NodeViewWrapper, type ReactNodeViewProps, ReactNodeViewRenderer } from '@tiptap/react';
import { Moves } from './moves.tsx';
import { isOwn } from './part-node.tsx';
import { useTextWorld } from './text-world.ts';

/** An entry that stands in a text, drawn by its card while it is live. */
export const EntryNode = Node.create({
  name: 'entry',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes: () => ({ entry: { default: null, rendered: false } }),
  parseHTML: () => [
    { tag: 'div[data-entry]', getAttrs: (element) => ({ entry: element.dataset.entry }) },
  ],
  renderHTML: ({ node }) => ['div', { 'data-entry': node.attrs.entry as string }],
  addNodeView: () => ReactNodeViewRenderer(EntryView, { stopEvent: ({ event }) => isOwn(event) }),
});

function EntryView({ node, ...place }: ReactNodeViewProps) {
  const id = String(node.attrs.entry);
  const { names, text } = useTextWorld();
  const name = names[id] ?? id;
  return (
    <NodeViewWrapper className="rich-part" role="group" aria-label={name} contentEditable={false}>
      <div className="flex items-center gap-2">
        <span data-drag-handle className="cursor-grab font-medium">
          {name}
        </span>
        <span className="min-w-0 grow truncate text-muted">
          {text.dark.includes(id)
            ? 'not live at this instant: pages leave it out'
            : 'an entry, drawn by its card'}
        </span>
        <Moves label={name} {...place} node={node} />
      </div>
    </NodeViewWrapper>
  );
}
