import { desc, eq } from 'drizzle-orm';
import { revision } from '../db/schema.ts';
import type { DisplayWorld } from '@/core/design/kinds/definition.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { SiteView } from './site-view.ts';

/** What showing values in tables looks up, as of an instant. */
export function displayWorld(view: SiteView, at: Instant): DisplayWorld {
  const subjects = view.subjects(at);
  const { zone = 'UTC', language = 'en' } = view.at(at)?.site.design.site ?? {};
  return {
    zone,
    language,
    nameOf: (mention) => {
      if (mention.of === 'entry') return nameOfEntry(view, mention.key);
      return mention.of === 'subject'
        ? (subjects.get(mention.set, mention.key)?.name ?? null)
        : null;
    },
  };
}

/** The name of an entry's newest revision; null where there is none. */
function nameOfEntry({ connection }: SiteView, id: string): string | null {
  const newest = connection.tables
    .select({ name: revision.name })
    .from(revision)
    .where(eq(revision.entry, id))
    .orderBy(desc(revision.number))
    .limit(1)
    .get();
  return newest?.name ?? null;
}

/** The name of an entry's newest revision; its id where there is none. */
export function entryName(view: SiteView, id: string): string {
  return nameOfEntry(view, id) ?? id;
}
