import type { EntryDetail } from '@/server/queries/entry.ts';
import { entryHref } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';

/** The languages that an entry is written in, each with how it stands there. */
export function LanguageTabs({ detail }: { detail: EntryDetail }) {
  const { id, language, languages } = detail;
  if (id === null || languages.length === 0) return null;
  return (
    <nav aria-label="Languages of this entry">
      <ul className="flex flex-wrap gap-x-4 gap-y-1 border-b border-rule">
        {languages.map((tab) => {
          const isHere = tab.id === language;
          const query = tab.id === null ? '' : `?language=${encodeURIComponent(tab.id)}`;
          return (
            <li key={tab.id ?? ''} className={isHere ? 'border-b-2 border-spruce' : ''}>
              <ClockLink
                href={`${entryHref(id)}${query}`}
                aria-current={isHere ? 'page' : undefined}
                className={`block py-1.5 ${isHere ? 'font-semibold' : 'text-muted hover:underline'}`}
              >
                {tab.label}
                <span className="font-normal text-muted">{` · ${tab.state}`}</span>
              </ClockLink>
            </li>
          );
        })}
      </ul>
    </nav>
  );
}
