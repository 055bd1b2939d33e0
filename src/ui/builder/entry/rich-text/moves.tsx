'use client';

import type { ReactNodeViewProps } from '@tiptap/react';
import { useTextWorld } from './text-world.ts';

type Props = Pick<ReactNodeViewProps, 'node' | 'editor' | 'getPos' | 'deleteNode'> & {
  label: string;
};

/** Moves something that stands in a text past the block before or after it, and takes it out. */
export function Moves({ label, node, editor, getPos, deleteNode }: Props) {
  const { readOnly } = useTextWorld();
  if (readOnly) return null;
  const move = (by: -1 | 1): void => {
    const at = getPos();
    if (at === undefined) return;
    const $at = editor.state.doc.resolve(at);
    const index = $at.index();
    const other = by < 0 ? $at.nodeBefore : $at.parent.maybeChild(index + 1);
    if (!other) return;
    const to = by < 0 ? at - other.nodeSize : at + other.nodeSize;
    editor.view.dispatch(
      editor.state.tr
        .delete(at, at + node.nodeSize)
        .insert(to, node)
        .scrollIntoView(),
    );
  };
  const button = (words: string, act: () => void) => (
    <button type="button" className="button-quiet" aria-label={`${words}: ${label}`} onClick={act}>
      {words}
    </button>
  );
  return (
    <>
      {button('Up', () => move(-1))}
      {button('Down', () => move(1))}
      {button('Take out', deleteNode)}
    </>
  );
}
