import type { Field } from '../design/field.ts';
import { displayValues, targetOf } from '../design/field-values.ts';
import type { DisplayWorld } from '../design/kinds/definition.ts';
import { kindOf } from '../design/kinds/index.ts';
import { type Values, valuesOf } from '../design/values.ts';
import { textLines } from '../rich-text/index.ts';
import { type Piece, rowPieces, whole, wordPieces } from './pieces.ts';

/** How a field differs between two versions. */
export interface FieldChange {
  /** The field's id. */
  field: string;
  label: string;
  /**
   * Words in a text, rows of a list or of a rich text, pictures by their ids, or the whole value;
   * `form`: the words are the same, and what they look like is not.
   */
  as: 'words' | 'rows' | 'pictures' | 'form';
  pieces: Piece[];
}

/** The fields in which two versions differ, in their order, and how. */
export function compareValues(
  fields: readonly Field[],
  before: Values,
  after: Values,
  world: DisplayWorld,
): FieldChange[] {
  return fields.flatMap((field) => {
    const [was, is] = [valuesOf(before, field.id), valuesOf(after, field.id)];
    if (kindOf(field).derived || JSON.stringify(was) === JSON.stringify(is)) return [];
    return [{ field: field.id, label: field.label, ...changeOf(field, before, after, world) }];
  });
}

function changeOf(
  field: Field,
  before: Values,
  after: Values,
  world: DisplayWorld,
): Pick<FieldChange, 'as' | 'pieces'> {
  const rows = (values: Values): string[] => rowsOf(field, values, world);
  const kind = kindOf(field);
  if (targetOf(field)?.of === 'media')
    return { as: 'pictures', pieces: rowPieces(rows(before), rows(after)) };
  if (field.many || field.kind === 'richtext' || field.fields) {
    const pieces = rowPieces(rows(before), rows(after));
    return { as: pieces.every(({ is }) => is === 'same') ? 'form' : 'rows', pieces };
  }
  const [was, is] = [displayValues(before, field, world), displayValues(after, field, world)];
  return { as: 'words', pieces: kind.family === 'text' ? wordPieces(was, is) : whole(was, is) };
}

/** The rows that a value is compared by: of a list its values, of a rich text its blocks. */
function rowsOf(field: Field, values: Values, world: DisplayWorld): string[] {
  const all = valuesOf(values, field.id);
  if (field.kind === 'richtext') return all.flatMap((doc) => textLines(doc));
  return all.map((value) => kindOf(field).display(value, field, world));
}
