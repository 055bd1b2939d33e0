import { z } from 'zod';
import { takenOver } from '@/core/design/taken-over.ts';
import { statement } from '../../store/statement.ts';
import { starterOf } from '../../store/starters.ts';
import { valuesOfType } from '../../store/stored-values.ts';
import { Refused, command } from '../definition.ts';
import { gone } from './save-starter.ts';

/** Takes a starter away; gives what it held, so that it can be made again. */
export const deleteStarter = command({
  deed: 'write-entry',
  input: z.strictObject({ id: z.string().max(64) }),
  run(context, { id }) {
    const { connection, site } = context;
    const row = starterOf(connection, id);
    if (!row) throw new Refused(gone());
    statement(connection, 'DELETE FROM starter WHERE id = ?').run(id);
    const type = site.types.get(row.type);
    const values = type ? takenOver(type, valuesOfType(type, row.filled, site.design.site)) : {};
    return { id, type: row.type, name: row.name, values };
  },
});
