import type { Readers } from '@/core/design-edit/readers.ts';
import { Sentences } from '@/ui/primitives/sentences.tsx';
import { counted } from '../format.ts';

/** What else reads a field: "2 patterns, 1 listing and 1 template read it", and which. */
export function ReaderWords({ readers, verb }: { readers: Readers; verb: string }) {
  const { patterns, listings, templates, lines } = readers;
  if (lines.length === 0) return <p className="text-muted">Nothing else reads it.</p>;
  const counts = [
    patterns > 0 ? counted(patterns, 'pattern') : '',
    listings > 0 ? counted(listings, 'listing') : '',
    templates > 0 ? counted(templates, 'template') : '',
  ].filter(Boolean);
  return (
    <div>
      <p>{`${verb}: ${counts.join(', ') || counted(lines.length, 'place')}.`}</p>
      <Sentences lines={lines} />
    </div>
  );
}
