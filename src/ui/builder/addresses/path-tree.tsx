'use client';

import { useState } from 'react';
import type { AddressBranch, AddressNode } from '@/server/queries/address-tree.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { counted } from '../format.ts';
import { lookingOf } from '../looking.ts';
import { ask } from '../send.ts';
import type { ShowAddresses } from './address-parameters.ts';

/** The paths of all pages as they lie below each other; branches open one by one. */
export function PathTree({
  tree,
  clock,
  show,
}: {
  tree: AddressBranch;
  clock: Clock;
  show: ShowAddresses;
}) {
  if (tree.nodes.length === 0)
    return (
      <p className="px-6 py-3 text-muted">
        No page stands below “/” yet. What goes live stands here by its address.
      </p>
    );
  return (
    <div className="px-6 py-3">
      <Branch key={`${clock.at} ${clock.seeing}`} branch={tree} clock={clock} show={show} />
    </div>
  );
}

function Branch({
  branch: { nodes, total },
  clock,
  show,
}: {
  branch: AddressBranch;
  clock: Clock;
  show: ShowAddresses;
}) {
  return (
    <ul className="border-l border-rule pl-3">
      {nodes.map((node) => (
        <Node key={node.path} node={node} clock={clock} show={show} />
      ))}
      {total > nodes.length && (
        <li className="py-1 text-muted">
          {`and ${counted(total - nodes.length, 'more', 'more')}; search the paths for them`}
        </li>
      )}
    </ul>
  );
}

function Node({ node, clock, show }: { node: AddressNode; clock: Clock; show: ShowAddresses }) {
  const { path, segment, isPage, below } = node;
  const [branch, setBranch] = useState<AddressBranch | string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const toggle = async (): Promise<void> => {
    setOpen(!isOpen);
    if (branch !== null) return;
    const answer = await ask<AddressBranch>('addressTree', { ...lookingOf(clock), under: path });
    setBranch('value' in answer ? answer.value : answer.problem);
  };
  return (
    <li>
      <span className="flex min-h-6 items-center gap-2">
        {below > 0 ? (
          <button
            type="button"
            aria-expanded={isOpen}
            aria-label={`Below ${path}`}
            className="button-quiet w-5 !p-0 text-center font-mono"
            onClick={() => void toggle()}
          >
            {isOpen ? '−' : '+'}
          </button>
        ) : (
          <span className="w-5 shrink-0" />
        )}
        {isPage ? (
          <button
            type="button"
            className="min-w-0 truncate text-left font-mono text-note text-spruce hover:underline"
            title={path}
            onClick={() => show({ try: path })}
          >
            {`/${segment}`}
          </button>
        ) : (
          <span className="min-w-0 truncate font-mono text-note text-muted" title={path}>
            {`/${segment}`}
          </span>
        )}
        {below > 0 && (
          <span className="text-note text-muted">{`${counted(below, 'page')} below`}</span>
        )}
      </span>
      {isOpen && typeof branch === 'string' && <p className="text-alarm">{branch}</p>}
      {isOpen && branch !== null && typeof branch !== 'string' && (
        <Branch branch={branch} clock={clock} show={show} />
      )}
    </li>
  );
}
