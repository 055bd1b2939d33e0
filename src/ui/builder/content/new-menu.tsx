'use client';

import { useRouter } from 'next/navigation';
import { Menu } from '@/ui/primitives/menu.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';

interface NewType {
  type: string;
  one: string;
  description: string;
}

/** Begins a new entry: of the type at hand, else of one that is chosen by what it is. */
export function NewMenu({ types, type }: { types: NewType[]; type: string | undefined }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  if (types.length === 0) return null;
  if (type !== undefined)
    return (
      <ClockLink
        href={`/build/content/new/${type}`}
        className="button button-main ml-auto flex items-center no-underline !text-white"
      >
        New
      </ClockLink>
    );
  return (
    <Menu
      label="New"
      className="button button-main ml-auto"
      items={types.map((t) => ({
        key: t.type,
        label: t.one,
        note: t.description,
        onPick: () => router.push(keep(`/build/content/new/${t.type}`)),
      }))}
    />
  );
}
