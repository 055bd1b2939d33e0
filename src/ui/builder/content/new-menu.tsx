'use client';

import { useRouter } from 'next/navigation';
import type { TypeCount } from '@/server/queries/content.ts';
import { Menu } from '@/ui/primitives/menu.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';

/**
 * Begins a new entry, blank or from a starter: of the type at hand, else of one that is chosen by
 * what it is.
 */
export function NewMenu({ types, type }: { types: TypeCount[]; type: string | undefined }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const own = types.find((t) => t.type === type);
  const open = types.filter(({ single, count }) => !single || count === 0);
  if (own && !open.includes(own))
    return (
      <span className="text-muted">
        {`There is one ${own.one} and no more; `}
        <ClockLink className="link" href={`/build/types/${own.type}`}>
          its type says so
        </ClockLink>
      </span>
    );
  if (open.length === 0) return null;
  if (own?.starters.length === 0)
    return (
      <ClockLink
        href={`/build/content/new/${type}`}
        className="button button-main flex items-center no-underline !text-white"
      >
        New
      </ClockLink>
    );
  return (
    <Menu
      label="New"
      className="button button-main"
      items={(own ? [own] : open).flatMap((t) => [
        {
          key: t.type,
          label: own ? `Blank ${t.one}` : t.one,
          note: [t.description, t.address === null ? '' : `Pages at ${t.address}`]
            .filter(Boolean)
            .join(' '),
          onPick: () => router.push(keep(`/build/content/new/${t.type}`)),
        },
        ...t.starters.map(({ id, name }) => ({
          key: `${t.type} ${id}`,
          label: name,
          note: `Starter of ${t.one}`,
          onPick: () =>
            router.push(keep(`/build/content/new/${t.type}?starter=${encodeURIComponent(id)}`)),
        })),
      ])}
    />
  );
}
