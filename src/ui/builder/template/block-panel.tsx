'use client';

import type { Block } from '@/core/design/block.ts';
import type { Issue } from '@/core/issue.ts';
import type { OutlineLine } from '@/core/template/block-tree.ts';
import { Line, Result } from '@/ui/primitives/line.tsx';
import { PropertyControl, type PropertyChoices } from './property-control.tsx';
import { wordsOfHtml } from './block-words.ts';

interface Props extends PropertyChoices {
  line: OutlineLine;
  /** What it gives, as HTML; undefined where that is nothing. */
  given: string | undefined;
  /** What is wrong with it, by the path of the property. */
  issues: readonly Issue[];
  readOnly: boolean;
  onChange: (block: Block) => void;
}

/** The settings of one block, and what it gives for what the template is shown for. */
export function BlockPanel({ line, given, issues, readOnly, onChange, ...choices }: Props) {
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
        .filter(({ control }) => control !== 'blocks')
        .map((property) => {
          const id = `block-${property.name}`;
          return (
            <Line key={property.name} label={property.label} htmlFor={id}>
              <PropertyControl
                {...{ id, property, readOnly, block: offer.block, ...choices }}
                value={block[property.name]}
                issues={ownOf(property.name)}
                onChange={(value) => set(property.name, value)}
              />
            </Line>
          );
        })}
      <div className="mt-2 border-t border-rule pt-2">
        <Result>
          {given === undefined ? (
            <span className="text-muted">
              Nothing here: what it reads is blank, or leads to nothing that is live.
            </span>
          ) : (
            wordsOfHtml(given)
          )}
        </Result>
      </div>
    </section>
  );
}
