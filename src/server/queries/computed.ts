import { isDerived } from '@/core/design/computed.ts';
import { Environments } from '@/core/design/environment.ts';
import type { EntryView } from '@/core/design/values.ts';
import { compilePattern } from '@/core/pattern/compile.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** The values of an entry's computed fields as of an instant, by field id; '' where blank. */
export function computedOf(
  site: CompiledSite,
  reader: SiteReader,
  entry: EntryView,
  at: Instant,
): Record<string, string> {
  const fields = entry.type.fields.filter(isDerived);
  if (fields.length === 0) return {};
  const env = new Environments(site.design).ofType(entry.type);
  const scope = new PageScope(site, reader, new Validity(at)).of(entry);
  return Object.fromEntries(
    fields.map(({ id, pattern = '' }) => [
      id,
      compilePattern(pattern, env, 'metadata').pattern?.text(scope) ?? '',
    ]),
  );
}
