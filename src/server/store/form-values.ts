import type { ContentType } from '@/core/design/spec.ts';
import { parseValues } from '@/core/design/field-values.ts';
import { checkMentions, type ValueWorld } from '@/core/design/check-values.ts';
import type { Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Issue } from '@/core/issue.ts';
import { paragraphsOf } from '@/core/rich-text.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';
import { SubjectStore } from './subject-store.ts';

/** Values of a form, by field id, as they are stored, and what keeps them from being saved. */
export function valuesOfForm(
  connection: Connection,
  site: CompiledSite,
  type: ContentType,
  given: Record<string, unknown>,
  now: Instant,
): { values: Values; issues: Issue[] } {
  const { zone } = site.design.site;
  const { values, issues } = parseValues(type.fields, given, { now, zone, richText: paragraphsOf });
  const wrong = checkMentions(type.fields, values, storedWorld(connection));
  return { values, issues: [...issues, ...wrong] };
}

const CANDIDATES = 1000;

/** What is there of a stored site, for checking values. */
export function storedWorld(connection: Connection): ValueWorld {
  const subjects = new SubjectStore(connection);
  const all = (sql: string): string[] => statement<string>(connection, sql).pluck().all(CANDIDATES);
  return {
    typeOf: (id) =>
      statement<string>(connection, 'SELECT type FROM entry WHERE id = ? AND deleted IS NULL')
        .pluck()
        .get(id) ?? null,
    has: (mention) =>
      mention.of === 'subject'
        ? subjects.get(mention.set, mention.key) !== null
        : statement(connection, 'SELECT 1 FROM media WHERE id = ?').get(mention.key) !== undefined,
    candidates: (mention) => {
      if (mention.of === 'subject') return subjects.all(mention.set).map((s) => s.key);
      return mention.of === 'media'
        ? all('SELECT id FROM media ORDER BY id LIMIT ?')
        : all('SELECT id FROM entry WHERE deleted IS NULL ORDER BY id LIMIT ?');
    },
  };
}
