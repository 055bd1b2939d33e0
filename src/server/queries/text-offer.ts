import type { Field } from '@/core/design/field.ts';
import type { Role } from '@/core/design/roles.ts';
import type { Mention } from '@/core/design/kinds/definition.ts';
import { textFormOf } from '@/core/design/text-form.ts';
import type { Instant } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** What the texts of a field may hold, for its editor. */
export interface TextOffer {
  /** Id of the type that the field is of. */
  type: string;
  /** Types of marks and of blocks; null for all. */
  marks: string[] | null;
  blocks: string[] | null;
  levels: number[] | null;
  /** Content types whose values may stand in it. */
  parts: { id: string; label: string; description: string }[];
  styles: { id: string; key: string; label: string; on: 'words' | 'paragraph' | 'picture' }[];
  /** What types and styles are called that it may not hold, or no more, by id. */
  names: Record<string, string>;
  /** Ids of the entries named in it that are not live as of the instant. */
  dark: string[];
}

/** What a rich text field offers to somebody; `named`: what its text names. */
export function textOffer(
  view: SiteView,
  field: Field,
  named: readonly Mention[],
  { at, type, role }: { at: Instant; type: string; role: Role },
): TextOffer {
  const form = textFormOf(field, role);
  const { types, design } = view.at(at)!.site;
  const list = <T>(set: ReadonlySet<T> | null): T[] | null => set && [...set];
  const live = statement<number>(
    view.connection,
    `SELECT 1 FROM live_interval AS l WHERE l.entry = @id AND ${asOf('l', '@at')}`,
  ).pluck();
  return {
    type,
    marks: list(form.marks),
    blocks: list(form.blocks),
    levels: list(form.levels),
    parts: form.allParts.flatMap(({ id, label }) =>
      form.parts.has(id) ? [{ id, label, description: types.get(id)?.description ?? '' }] : [],
    ),
    styles: form.allStyles.filter(({ id }) => form.styles.has(id)),
    names: Object.fromEntries(
      [...design.types, ...form.allStyles].map(({ id, label }) => [id, label]),
    ),
    dark: [...new Set(named.map(({ key }) => key))].filter(
      (id) => live.get({ id, at }) === undefined,
    ),
  };
}
