import type { BlockMove } from '@/core/template/block-tree.ts';
import { Menu, type MenuItem } from '@/ui/primitives/menu.tsx';
import type { TemplateDetail } from '@/server/queries/template.ts';
import type { Outline } from './use-outline.ts';

const MOVES: [BlockMove, string, string][] = [
  ['up', 'Up', 'Alt ↑'],
  ['down', 'Down', 'Alt ↓'],
  ['out', 'Out', 'Alt ←: behind what it stands in'],
  ['in', 'In', 'Alt →: into the block before it'],
];

/** What is done with the outline, and with the block that is chosen. */
export function OutlineActions({
  outline,
  detail,
  unused,
}: {
  outline: Outline;
  detail: TemplateDetail;
  /** Keys of fields that no block reads. */
  unused: readonly string[];
}) {
  const id = outline.chosen?.block?.id ?? null;
  const isMenu = detail.spec.kind === 'menu';
  const isGroup = outline.chosen?.block?.block === 'group';
  const act = (
    label: string,
    run: (own: string) => void,
    { can = true, title }: { can?: boolean; title?: string } = {},
  ) => (
    <button
      key={label}
      type="button"
      className="button-quiet"
      disabled={id === null || !can}
      title={title}
      onClick={() => id !== null && run(id)}
    >
      {label}
    </button>
  );
  return (
    <div role="toolbar" aria-label="Blocks" className="flex flex-wrap items-center gap-x-1">
      <Menu label="Add" align="start" items={addable(outline, detail, unused)} />
      {MOVES.map(([move, label, title]) =>
        act(label, (own) => outline.move(own, move), {
          can: id !== null && outline.canMove(id, move),
          title,
        }),
      )}
      {act('Duplicate', outline.duplicate)}
      {act('Copy', outline.copy, { title: 'For this template or another one' })}
      <button
        type="button"
        className="button-quiet"
        title="Behind the chosen block: what was copied last, here or in another template"
        onClick={outline.paste}
      >
        Paste
      </button>
      {!isMenu && (isGroup ? act('Unwrap', outline.unwrap) : act('Wrap in a group', outline.wrap))}
      {act('Delete', outline.remove)}
      <button
        type="button"
        className="button-quiet"
        disabled={!outline.undo}
        onClick={() => outline.undo?.()}
      >
        Undo
      </button>
    </div>
  );
}

/** What can be added: the fields first that stand nowhere yet, then every kind of block. */
function addable(
  { add }: Outline,
  { fields, offers }: TemplateDetail,
  unused: readonly string[],
): MenuItem[] {
  const isUnused = (key: string): boolean => unused.includes(key);
  const own = [...fields].sort((a, b) => Number(isUnused(b.key)) - Number(isUnused(a.key)));
  return [
    ...own.map(({ key, label, block }) => ({
      key: `field ${key}`,
      label: `Field: ${label}`,
      note: isUnused(key) ? 'stands nowhere yet' : 'stands here already',
      onPick: () => add(block),
    })),
    ...offers.flatMap(({ block, label, doc, begun }) =>
      begun ? [{ key: block, label, note: doc, onPick: () => add(begun) }] : [],
    ),
  ];
}
