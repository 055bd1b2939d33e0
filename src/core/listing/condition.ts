import type { Operator } from '../design/listing-spec.ts';
import type { Column } from './columns.ts';
import type { Operand } from './operand.ts';
import type { Condition } from './plan.ts';

/** A condition that no listing wrote: what a list is narrowed by. */
export function conditionOf(column: Column, op: Operator, operand: Operand): Condition {
  return { kind: 'condition', column, op, operand, spec: { field: column.name, op } };
}
