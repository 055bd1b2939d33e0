import type { Block } from '@/core/design/block.ts';
import { isBlank } from '@/core/pattern/types.ts';
import { compilePattern } from '@/core/pattern/compile.ts';
import { readPattern } from '@/core/pattern/read.ts';
import { eachExpression } from '@/core/pattern/tree.ts';
import type { Template } from '@/core/design/spec.ts';
import type { EntryView } from '@/core/design/values.ts';
import { mentionsOf } from '@/core/design-edit/mentions.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** So many of the values that a block reads are looked at. */
const MOST = 12;

/** Why blocks give nothing for an entry, by their ids: which of what they read is blank. */
export function whyBlank(
  site: CompiledSite,
  template: Template,
  { entry, reader, at }: { entry: EntryView; reader: SiteReader; at: Instant },
  drawn: Readonly<Record<string, string>>,
): Record<string, string> {
  const scope = new PageScope(site, reader, new Validity(at)).show(entry);
  const env = site.environments.ofType(entry.type);
  const isBlankHere = (name: string): boolean => {
    const { pattern } = compilePattern(`{${name}}`, env, 'value');
    return pattern !== null && isBlank(pattern.value(scope));
  };
  const read = namesRead(site, template);
  const why: Record<string, string> = {};
  const look = (value: unknown, outer: string | null): void => {
    if (typeof value !== 'object' || value === null) return;
    const { block, id } = value as Block;
    let within = outer;
    if (typeof block === 'string' && id !== undefined && drawn[id] === undefined) {
      const blank = [...(read.get(id) ?? [])].slice(0, MOST).filter(isBlankHere);
      const reason = outer ?? reasonOf(value as Block, blank);
      if (reason !== null) why[id] = reason;
      if (block === 'condition' && outer === null)
        within = 'It stands in a condition that does not hold here.';
    }
    for (const inner of Object.values(value)) look(inner, within);
  };
  look([template.blocks, template.slots], null);
  return why;
}

function reasonOf({ block, over }: Block, blank: readonly string[]): string | null {
  if (block === 'condition')
    return 'What it asks does not hold here, and nothing stands otherwise.';
  if (blank.length === 0) return null;
  const names = blank.map((name) => `“${name}”`).join(', ');
  const what = block === 'repeat' && over !== undefined ? 'there is nothing in' : null;
  return what
    ? `Nothing: ${what} ${names}.`
    : `${names} ${blank.length === 1 ? 'is' : 'are'} blank here.`;
}

/** The names that each block reads, as they are written: of fields, and over references. */
function namesRead(site: CompiledSite, template: Template): Map<string, Set<string>> {
  const start = `templates/${template.id}/blocks/`;
  const found = new Map<string, Set<string>>();
  for (const { part, holds, text } of mentionsOf(template, site.design, site.environments)) {
    if (!part.startsWith(start)) continue;
    const names = found.get(part.slice(start.length)) ?? new Set();
    if (holds === 'field' || holds === 'expression') names.add(text);
    if (holds === 'pattern') for (const name of namesInPattern(text)) names.add(name);
    found.set(part.slice(start.length), names);
  }
  return found;
}

/** Paths of names in a pattern, without those of what is no entry's. */
function namesInPattern(text: string): string[] {
  const found: string[] = [];
  eachExpression(readPattern(text).tree.parts, (expression) => {
    if (expression.kind === 'path') found.push(expression.names.map(({ name }) => name).join('.'));
  });
  return found.filter((name) => !/^(site|page|locale|item)\b/.test(name));
}
