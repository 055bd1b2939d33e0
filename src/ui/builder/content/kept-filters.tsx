'use client';

import { useState } from 'react';
import type { KeptFilter } from '@/server/queries/kept-filters.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';

interface Props {
  kept: readonly KeptFilter[];
  filters: ContentFilters;
  onTake: (filters: ContentFilters) => void;
  onKeep: (name: string, shared: boolean) => void;
  onDrop: (id: string) => void;
}

/** Filters with names: taken up again, kept, and given up. */
export function KeptFilters({ kept, filters, onTake, onKeep, onDrop }: Props) {
  const [naming, setNaming] = useState(false);
  const at = kept.find((k) => sameFilters(k.filters, filters));
  const isNarrowed = Object.values(filters).some((v) => v !== undefined);
  return (
    <>
      {kept.length > 0 && (
        <select
          aria-label="Kept filters"
          className="control !w-auto max-w-52"
          value={at?.id ?? ''}
          onChange={({ target }) =>
            onTake(kept.find(({ id }) => id === target.value)?.filters ?? {})
          }
        >
          <option value="">{at ? 'All entries' : 'Kept filters'}</option>
          {kept.map(({ id, name, shared, by }) => (
            <option key={id} value={id}>
              {shared ? `${name} (shared${by === null ? '' : ` by ${by}`})` : name}
            </option>
          ))}
        </select>
      )}
      {at?.by === null && (
        <button type="button" className="button-quiet" onClick={() => onDrop(at.id)}>
          Forget it
        </button>
      )}
      {isNarrowed && !at && (
        <button type="button" className="button-quiet" onClick={() => setNaming(true)}>
          Keep this filter
        </button>
      )}
      {naming && (
        <NameDialog
          onClose={() => setNaming(false)}
          onKeep={(name, shared) => {
            setNaming(false);
            onKeep(name, shared);
          }}
        />
      )}
    </>
  );
}

function sameFilters(a: ContentFilters, b: ContentFilters): boolean {
  const plain = ({ type, search, state, where, sort }: ContentFilters): string =>
    JSON.stringify([type ?? '', search ?? '', state ?? '', where ?? null, sort ?? '']);
  return plain(a) === plain(b);
}

function NameDialog({
  onClose,
  onKeep,
}: {
  onClose: () => void;
  onKeep: (name: string, shared: boolean) => void;
}) {
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  return (
    <Dialog open onOpenChange={onClose} title="Keep this filter">
      <form
        className="mt-3 flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim() !== '') onKeep(name.trim(), shared);
        }}
      >
        <label className="font-medium">
          Name
          <input
            autoFocus
            className="control mt-1 font-normal"
            maxLength={80}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={shared} onChange={() => setShared(!shared)} />
          Everybody may take it up
        </label>
        <div className="flex gap-2">
          <button type="submit" className="button button-main" disabled={name.trim() === ''}>
            Keep it
          </button>
          <button type="button" className="button" onClick={onClose}>
            Leave it
          </button>
        </div>
      </form>
    </Dialog>
  );
}
