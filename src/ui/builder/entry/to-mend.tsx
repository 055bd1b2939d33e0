import type { Issue } from '@/core/issue.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import { goToField } from './go-to-field.ts';

/** What is wrong with the form, each leading to its field; nothing where nothing is. */
export function ToMend({ issues, detail }: { issues: readonly Issue[]; detail: EntryDetail }) {
  const lines = detail.type.fields.flatMap((field) => {
    const own = issues.filter(({ path }) => path === field.key || path === field.id);
    return own.length > 0 ? [{ field, words: own[0]!.message }] : [];
  });
  if (lines.length === 0) return null;
  return (
    <nav
      aria-label="What is to be mended"
      className="border-l-[3px] border-alarm bg-white px-3 py-2"
    >
      <ul>
        {lines.map(({ field, words }) => (
          <li key={field.id}>
            <button
              type="button"
              className="text-left text-alarm underline"
              onClick={() => goToField(field.key)}
            >
              {words}
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}
