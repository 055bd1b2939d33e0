import { asc } from 'drizzle-orm';
import { person } from '../db/schema.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { SiteView } from './site-view.ts';

/** A person by id and name. */
export interface PersonLine {
  id: string;
  name: string;
}

/** Everybody who ever wrote or did something, by name. */
export function people({ connection }: SiteView, actor: Actor): PersonLine[] {
  permit(actor, 'read-unpublished', SITE);
  return connection.tables.select().from(person).orderBy(asc(person.name), asc(person.id)).all();
}
