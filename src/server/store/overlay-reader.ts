import type { EntryView, Values } from '@/core/design/values.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import type { Validity } from '@/core/time/interval.ts';

/** A reader that shows other values for some entries, live ones only: drafts, or what a form holds unsaved. */
export function withValues(reader: SiteReader, overlay: ReadonlyMap<string, Values>): SiteReader {
  if (overlay.size === 0) return reader;
  const shown: SiteReader = Object.create(reader) as SiteReader;
  shown.liveEntries = (ids: readonly string[], validity: Validity): Map<string, EntryView> => {
    const found = reader.liveEntries(ids, validity);
    for (const [id, entry] of found) {
      const values = overlay.get(id);
      if (values) found.set(id, { ...entry, values });
    }
    return found;
  };
  return shown;
}
