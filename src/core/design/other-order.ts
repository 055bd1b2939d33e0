import { z } from 'zod';
import type { Values } from './values-of.ts';

/** Under this id, which no field can have, a revision holds the order of who leads to its entry. */
export const ORDER = '_order';

/** Ids of entries in their order, by the reference through which they lead here (`otherSideId`). */
export const orderSpec = z.record(z.string().max(130), z.array(z.string().max(200)).max(1000));

/** The order that an entry's values give those that lead to it by a reference; none where not. */
export function orderOf(values: Values, reference: string): readonly string[] {
  const read = orderSpec.safeParse(values[ORDER] ?? {});
  return (read.success && read.data[reference]) || [];
}

/** Those that an order names first, in it; the others after them, as they stood. */
export function inOrder<T extends { id: string }>(
  all: readonly T[],
  order: readonly string[],
): T[] {
  if (order.length === 0) return [...all];
  const places = new Map(order.map((id, i) => [id, i]));
  const place = ({ id }: T): number => places.get(id) ?? order.length;
  return all.toSorted((a, b) => place(a) - place(b));
}
