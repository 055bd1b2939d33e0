'use client';

import type { Block } from '@/core/design/block.ts';
import { blocksWithin } from '@/core/design/block-ids.ts';
import type { Issue } from '@/core/issue.ts';
import type { OutlineLine } from '@/core/template/block-tree.ts';
import type { BlockOffer, ItemOffers } from '@/core/template/offers.ts';
import { Line, Result } from '@/ui/primitives/line.tsx';
import { PropertyControl, type PropertyChoices } from './property-control.tsx';
import { wordsOfHtml } from './block-words.ts';

interface Props extends PropertyChoices {
  line: OutlineLine;
  /** What it gives, as HTML; undefined where that is nothing. */
  given: string | undefined;
  /** Why it gives nothing, where that is known. */
  why: string | undefined;
  /** What blocks within the repetition it stands in can be bound to; null elsewhere. */
  items: ItemOffers | null;
  /** What is wrong with it, by the path of the property. */
  issues: readonly Issue[];
  readOnly: boolean;
  onChange: (block: Block) => void;
}

/** The settings of one block, and what it gives for what the template is shown for. */
export function BlockPanel({ line, given, why, issues, readOnly, onChange, ...choices }: Props) {
  const block = line.block!;
  const offer = choices.offers.find((one) => one.block === block.block);
  if (!offer) return <p className="text-alarm">{`There is no block “${block.block}”.`}</p>;
  const set = (name: string, value: unknown): void => {
    const { [name]: _, ...rest } = block;
    onChange((value === undefined ? rest : { ...rest, [name]: value }) as Block);
  };
  const ownOf = (name: string): Issue[] =>
    issues.filter(({ path = '' }) => path === name || path.startsWith(`${name}/`));
  return (
    <section aria-label={`Block: ${offer.label}`}>
      <h2>{offer.label}</h2>
      <p className="mb-1 text-note text-muted">{offer.doc}</p>
      {offer.panel
        .filter(({ control, many }) => control !== 'blocks' || many)
        .map((property) => {
          const id = `block-${property.name}`;
          return (
            <Line key={property.name} label={property.label} htmlFor={id}>
              {property.control === 'blocks' ? (
                <ListCount
                  {...{ id, readOnly }}
                  lists={(block[property.name] ?? []) as Block[][]}
                  onChange={(lists) => set(property.name, lists)}
                />
              ) : (
                <PropertyControl
                  {...{ id, property, readOnly, ...choices }}
                  block={block}
                  value={block[property.name]}
                  issues={ownOf(property.name)}
                  onChange={(value) => set(property.name, value)}
                />
              )}
            </Line>
          );
        })}
      <div className="mt-2 border-t border-rule pt-2">
        <Result>
          {given === undefined ? (
            <span className="text-muted">
              {holdsNothing(block, offer)
                ? 'Nothing: there are no blocks in it yet.'
                : (why ??
                  'Nothing here: what it reads is blank, or leads to nothing that is live.')}
            </span>
          ) : (
            wordsOfHtml(given)
          )}
        </Result>
      </div>
    </section>
  );
}

const MOST_LISTS = 6;

/** How many lists stand side by side; what stood in one that goes comes behind the one before. */
function ListCount({
  id,
  lists,
  readOnly,
  onChange,
}: {
  id: string;
  lists: Block[][];
  readOnly: boolean;
  onChange: (lists: Block[][]) => void;
}) {
  const change = (count: number): void => {
    const more = Array.from({ length: Math.max(0, count - lists.length) }, (): Block[] => []);
    const kept = [...lists.slice(0, count), ...more];
    const gone = lists.slice(count).flat();
    onChange(kept.map((list, i) => (i === count - 1 ? [...list, ...gone] : list)));
  };
  return (
    <select
      id={id}
      className="control !w-28"
      disabled={readOnly}
      value={lists.length}
      onChange={(e) => change(Number(e.target.value))}
    >
      {Array.from({ length: MOST_LISTS }, (_, i) => (
        <option key={i} value={i + 1}>
          {i + 1}
        </option>
      ))}
    </select>
  );
}

function holdsNothing(block: Block, { panel }: BlockOffer): boolean {
  const lists = panel.filter(({ control }) => control === 'blocks');
  return lists.length > 0 && [...blocksWithin(lists.map(({ name }) => block[name]))].length === 0;
}
