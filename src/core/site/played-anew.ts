import { typesToDealAnew } from '../address/rules.ts';
import { timingForm } from '../timing/rules.ts';
import type { CompiledSite } from './compile.ts';

/**
 * Ids of the types whose entries may be live at other times, or get other addresses, when one
 * design takes the place of another.
 */
export function typesToPlayAnew(before: CompiledSite, after: CompiledSite): Set<string> {
  const types = playedAnewIn(before, after);
  for (const further of after.languages.filter(({ design }) => design.edition)) {
    const { id } = further.design.edition!;
    const was = before.languages.find(({ design }) => design.edition?.id === id);
    const all = further.design.types.map((type) => type.id);
    for (const type of was ? playedAnewIn(was, further) : all) types.add(type);
  }
  return types;
}

/** The same in one language. */
function playedAnewIn(before: CompiledSite, after: CompiledSite): Set<string> {
  const types = typesToDealAnew(before.addresses, after.addresses);
  if (before.design.edition?.fallback !== after.design.edition?.fallback)
    for (const { id } of after.design.types) types.add(id);
  for (const type of after.design.types) {
    const was = before.types.get(type.id);
    if (timingForm(type, after.design) !== (was ? timingForm(was, before.design) : ''))
      types.add(type.id);
  }
  return types;
}
