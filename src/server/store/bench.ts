import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { type Folded, type OpenEdit, foldEdits } from '@/core/design-edit/fold.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';

/** An edit that stands on the bench, with who made it and when. */
export interface BenchEdit extends OpenEdit {
  person: string;
  made: Instant;
}

type Row = { id: number; person: string; made: number; edit: string };

/** The edits that are not released yet, in their order. */
export function openEdits(connection: Connection): BenchEdit[] {
  return statement<Row>(
    connection,
    `SELECT id, person, made, edit FROM design_edit WHERE state = 'open' ORDER BY id`,
  )
    .all()
    .map(readEdit);
}

/** A row of the table of edits, read. */
export function readEdit({ id, person, made, edit }: Row): BenchEdit {
  return { id, person, made, edit: JSON.parse(edit) as DesignEdit };
}

/** How many edits stand on the bench. */
export function openEditCount(connection: Connection): number {
  return statement<number>(connection, `SELECT count(*) FROM design_edit WHERE state = 'open'`)
    .pluck()
    .get()!;
}

/** The counter that every change of the bench raises. */
export function benchGeneration(connection: Connection): number {
  return (
    statement<number>(connection, `SELECT generation FROM site_change WHERE scope = 'bench'`)
      .pluck()
      .get() ?? 0
  );
}

/** Working designs of a connection: what was folded last is kept until something changes. */
export class WorkingDesigns {
  private readonly folded = new WeakMap<CompiledSite, { generation: number; folded: Folded }>();

  constructor(private readonly connection: Connection) {}

  /** A released design with the open edits on top. */
  on(site: CompiledSite): Folded {
    const generation = benchGeneration(this.connection);
    const known = this.folded.get(site);
    if (known?.generation === generation) return known.folded;
    const edits = openEdits(this.connection);
    const folded: Folded =
      edits.length === 0
        ? { design: site.design, site, applied: [], stuck: [] }
        : foldEdits(site.design, edits);
    this.folded.set(site, { generation, folded });
    return folded;
  }
}
