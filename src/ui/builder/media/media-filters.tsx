import { type FormatName, FORMAT_NAMES } from '@/core/design/media-formats.ts';
import type { MediaFilters } from '@/core/content/media-filters.ts';
import { counted } from '../format.ts';
import { ChooseFiles } from './drop-place.tsx';

const PICTURES = FORMAT_NAMES.filter((f) => f !== 'pdf' && f !== 'svg');
/** Sorts of files that are looked for. */
const SORTS: { label: string; formats: FormatName[] | null }[] = [
  { label: 'All files', formats: null },
  { label: 'Pictures', formats: PICTURES },
  { label: 'Drawings (SVG)', formats: ['svg'] },
  { label: 'Documents (PDF)', formats: ['pdf'] },
];
/** What a file picker offers; what a file is, the server tells by its content. */
export const ACCEPTED = 'image/png,image/jpeg,image/webp,image/avif,image/gif,image/svg+xml,.pdf';

/** What media are narrowed down by, how they are ordered, and where more are added. */
export function MediaFilterBar({
  filters,
  total,
  readOnly,
  onFilter,
  onFiles,
}: {
  filters: MediaFilters;
  total: number;
  readOnly: boolean;
  onFilter: (change: Partial<MediaFilters>) => void;
  onFiles: (files: File[]) => void;
}) {
  const same = JSON.stringify(filters.formats);
  const sort = SORTS.findIndex(({ formats }) => JSON.stringify(formats) === same);
  return (
    <div className="flex items-center gap-3 px-6 pt-3 pb-2">
      <h1 className="mr-2">Media</h1>
      <select
        aria-label="Sort of file"
        className="control w-34"
        value={sort}
        onChange={(e) => onFilter({ formats: SORTS[Number(e.target.value)]!.formats })}
      >
        {SORTS.map(({ label }, i) => (
          <option key={label} value={i}>
            {label}
          </option>
        ))}
      </select>
      <select
        aria-label="What they lack"
        className="control w-34"
        value={filters.lacking ?? ''}
        onChange={(e) => onFilter({ lacking: (e.target.value || null) as MediaFilters['lacking'] })}
      >
        <option value="">Any state</option>
        <option value="alt">No alternative text</option>
        <option value="use">Used nowhere</option>
      </select>
      <input
        type="search"
        aria-label="Find by name, alternative text, caption or credit"
        placeholder="Find by words"
        className="control max-w-56 min-w-24 flex-1 basis-24"
        value={filters.words}
        onChange={(e) => onFilter({ words: e.target.value })}
      />
      <select
        aria-label="Order"
        className="control w-34"
        value={filters.sort}
        onChange={(e) => onFilter({ sort: e.target.value as MediaFilters['sort'] })}
      >
        <option value="newest">Newest first</option>
        <option value="name">By name</option>
        <option value="largest">Largest first</option>
      </select>
      <span role="status" className="whitespace-nowrap text-muted">
        {counted(total, 'file')}
      </span>
      {!readOnly && (
        <span className="ml-auto whitespace-nowrap">
          <ChooseFiles label="Add files" main accept={ACCEPTED} onFiles={onFiles} />
        </span>
      )}
    </div>
  );
}
