import { typesToDealAnew } from '../address/rules.ts';
import { timingForm } from '../timing/rules.ts';
import type { CompiledSite } from './compile.ts';

/**
 * Ids of the types whose entries may be live at other times, or get other addresses, when one
 * design takes the place of another.
 */
export function typesToPlayAnew(before: CompiledSite, after: CompiledSite): Set<string> {
  const types = typesToDealAnew(before.addresses, after.addresses);
  for (const type of after.design.types) {
    const was = before.types.get(type.id);
    if (timingForm(type, after.design) !== (was ? timingForm(was, before.design) : ''))
      types.add(type.id);
  }
  return types;
}
