import type { Issue } from '@/core/issue.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';

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
              onClick={() => goTo(`field-${field.key}`)}
            >
              {words}
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}

/** Puts the focus into a field, or the first control in it. */
function goTo(id: string): void {
  const found = document.getElementById(id);
  const own = found?.matches('input, select, textarea, button, [contenteditable]') ? found : null;
  const target =
    own ?? found?.querySelector<HTMLElement>('input, select, textarea, button') ?? found;
  target?.scrollIntoView({ block: 'center' });
  target?.focus();
}
