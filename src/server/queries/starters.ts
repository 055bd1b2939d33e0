import { isTakenOver, takenOver } from '@/core/design/taken-over.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { personName } from '../store/persons.ts';
import { starterOf, startersOf } from '../store/starters.ts';
import { valuesOfType } from '../store/stored-values.ts';
import type { EntryDetail } from './entry.ts';
import { formType } from './form-type.ts';
import { withMeantSubjects } from './meant-subjects.ts';
import type { SiteView } from './site-view.ts';

/** A starter, as something to choose. */
export interface Starter {
  id: string;
  name: string;
  /** Who saved it last, and when. */
  author: string;
  saved: Instant;
}

/** What the screen of a starter shows. */
export interface StarterDetail extends Pick<EntryDetail, 'type' | 'values'> {
  /** Null for a new one; so is when it was saved. */
  id: string | null;
  name: string;
  author: string | null;
  saved: Instant | null;
}

/** The starters of a type, by its id. */
export function starters({ connection }: SiteView, type: string): Starter[] {
  return startersOf(connection, type).map(({ id, name, author, saved }) => ({
    ...{ id, name, saved },
    author: personName(connection, author),
  }));
}

/**
 * A starter with a form for what it fills in, or a form for a new one of a type, by its key; null
 * where there is none.
 */
export function starterDetail(
  view: SiteView,
  actor: Actor,
  asked: { id: string } | { type: string },
  at: Instant,
): StarterDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const { connection } = view;
  const site = view.at(at)?.site;
  const row = 'id' in asked ? starterOf(connection, asked.id) : undefined;
  const type = 'id' in asked ? site?.types.get(row?.type ?? '') : site?.typesByKey.get(asked.type);
  if (!site || !type) return null;
  const values = takenOver(type, valuesOfType(type, row?.filled ?? '{}', site.design.site));
  const asking = { at, entry: null, role: actor.role };
  const own = type.fields.filter(isTakenOver);
  const form = formType(view, { ...type, fields: own }, values, asking);
  return {
    id: row?.id ?? null,
    name: row?.name ?? '',
    author: row ? personName(connection, row.author) : null,
    saved: row?.saved ?? null,
    type: { ...form, fields: form.fields.map((field) => ({ ...field, required: false })) },
    values: withMeantSubjects(type.fields, values, view.subjects(at)),
  };
}
