'use client';

import { Node } from '@tiptap/core';
import { NodeViewWrapper, type ReactNodeViewProps, ReactNodeViewRenderer } from '@tiptap/react';
import { useEffect, useId, useRef, useState } from 'react';
import type { FormField } from '@/server/queries/form-field.ts';
import { type Item, ItemFields } from '../controls/item-fields.tsx';
import { useAsked } from '../../use-asked.ts';
import { Moves } from './moves.tsx';
import { useTextWorld } from './text-world.ts';

/** A part of a text: values of a type, with the fields of that type in place. */
export const PartNode = Node.create({
  name: 'part',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes: () => ({
    type: { default: null, rendered: false },
    values: { default: {}, rendered: false },
    /** Whether it was placed just now, so that it opens: never stored. */
    fresh: { default: false, rendered: false },
  }),
  parseHTML: () => [
    {
      tag: 'div[data-part]',
      getAttrs: (element) => JSON.parse(element.dataset.part ?? '{}') as Record<string, unknown>,
    },
  ],
  renderHTML: ({ node }) => [
    'div',
    { 'data-part': JSON.stringify({ type: node.attrs.type, values: node.attrs.values }) },
  ],
  addNodeView: () => ReactNodeViewRenderer(PartView, { stopEvent: ({ event }) => isOwn(event) }),
});

/** What happens in the fields of a part is theirs; dragging it as a whole is the text's. */
export function isOwn(event: Event): boolean {
  return !event.type.startsWith('drag') && event.type !== 'drop';
}

function PartView({ node, updateAttributes, ...place }: ReactNodeViewProps) {
  const { type, values, fresh } = node.attrs as { type: string; values: Item; fresh: boolean };
  const { text } = useTextWorld();
  const [open, setOpen] = useState(fresh);
  const label = text.names[type] ?? type;
  return (
    <NodeViewWrapper className="rich-part" role="group" aria-label={label} contentEditable={false}>
      <div className="flex items-center gap-2">
        <span data-drag-handle className="cursor-grab font-medium">
          {label}
        </span>
        <span className="min-w-0 grow truncate text-muted">{open ? '' : inShort(values)}</span>
        <button
          type="button"
          className="button-quiet"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {open ? 'Close' : 'Edit'}
        </button>
        <Moves label={label} {...place} node={node} />
      </div>
      {open && (
        <PartForm
          label={label}
          type={type}
          values={values}
          onValues={(next) => updateAttributes({ values: next, fresh: false })}
        />
      )}
    </NodeViewWrapper>
  );
}

/** The first words that values hold. */
function inShort(values: Item): string {
  const words = Object.values(values).filter((value) => typeof value === 'string');
  return words.slice(0, 3).join(' · ');
}

interface PartFormProps {
  label: string;
  type: string;
  values: Item;
  onValues: (values: Item) => void;
}

function PartForm({ label, type, values, onValues }: PartFormProps) {
  const { zone, now, entry, readOnly } = useTextWorld();
  const id = useId();
  const [first] = useState(values);
  const asked = { at: now, type, values: first, entry };
  const { answer, problem } = useAsked<{ fields: FormField[]; starts: Item }>('part', asked);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!answer) return;
    if (Object.keys(first).length === 0) onValues(filled(answer.starts));
    box.current?.querySelector<HTMLElement>('input, textarea, select, [contenteditable]')?.focus();
    // Once its fields are there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [answer === null]);
  if (!answer) return <p className="text-muted">{problem ?? 'Looking up its fields …'}</p>;
  return (
    <div ref={box} className="mt-2">
      <ItemFields
        {...{ id, label, zone, now, entry, readOnly }}
        fields={answer.fields}
        item={values}
        onItem={(item) => onValues(filled(item))}
      />
    </div>
  );
}

/** Values without those that are blank. */
function filled(item: Item): Item {
  return Object.fromEntries(
    Object.entries(item).filter(([, value]) => value !== null && value !== ''),
  );
}
