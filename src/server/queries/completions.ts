import type { ContentType } from '@/core/design/spec.ts';
import { type Completion, completeAt } from '@/core/pattern/complete.ts';
import { compilePattern } from '@/core/pattern/compile.ts';
import type { Environment } from '@/core/pattern/types.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import { itemSurroundings } from '@/core/template/blocks/repeat.ts';
import type { BlockSurroundings } from '@/core/template/context.ts';
import { NO_CARDS, TreeCompiler } from '@/core/template/tree-compiler.ts';
import { limitText } from '@/core/text.ts';
import { Validity } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { Looking } from './clock.ts';
import type { SiteView } from './site-view.ts';
import { triedOn } from './tried-on.ts';

/** A pattern that is being written, and what it is read from. */
export interface BeingWritten {
  text: string;
  /** Where the caret stands, in UTF-16 units. */
  caret: number;
  isAddress: boolean;
  /** Key of the type whose fields it reads; null for a listing's pages, and for the frame. */
  type: string | null;
  inFrame: boolean;
  /** What blocks around it repeat, the outermost first. */
  over: string[];
  /** Whose values stand beside the offers; null for a stand-in. */
  specimen: string | null;
}

/** What can stand at the caret, each with what it gives for the specimen. */
export interface Completed {
  from: number;
  to: number;
  offers: (Completion & { value: string | null })[];
}

const LONGEST = 60;

/** What can be written at the caret of a pattern; null where nothing can be. */
export function completions(
  view: SiteView,
  actor: Actor,
  written: BeingWritten,
  looking: Looking,
): Completed | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.editable(looking.at, looking.past)?.site;
  if (!site) return null;
  const type = written.type === null ? null : (site.typesByKey.get(written.type) ?? null);
  const around = aroundIt(site, type, written);
  const { text, caret, isAddress } = written;
  const found = completeAt(text, caret, around.env, isAddress);
  if (!found) return null;
  const valueOf = type
    ? specimenReader(view, actor, { site, type, specimen: written.specimen }, looking)
    : null;
  const offers = found.offers.map((offer) => ({
    ...offer,
    value: offer.expression === null ? null : (valueOf?.(around.env, offer.expression) ?? null),
  }));
  return { ...found, offers };
}

function aroundIt(
  { design, environments }: CompiledSite,
  type: ContentType | null,
  { inFrame, over }: BeingWritten,
): BlockSurroundings {
  const env = environments.ofTemplate(inFrame ? 'frame' : 'page', type);
  return over.reduce<BlockSurroundings>(
    (around, each) => itemSurroundings(each, new TreeCompiler(design, around, NO_CARDS)),
    { env, type },
  );
}

/** Reads expressions for the specimen, as metadata has them; of items nothing is known. */
function specimenReader(
  view: SiteView,
  actor: Actor,
  { site, type, specimen }: { site: CompiledSite; type: ContentType; specimen: string | null },
  { at, seeing }: Looking,
): (env: Environment, expression: string) => string | null {
  const { reader, entry } = triedOn(view, actor, { site, type, specimen }, { at, seeing });
  const scope = new PageScope(site, reader, new Validity(at)).show(entry);
  return (env, expression) => {
    if (expression.startsWith('item.')) return null;
    const { pattern } = compilePattern(`{${expression}}`, env, 'metadata');
    const value = pattern?.text(scope) ?? null;
    return value === null ? null : limitText(value, LONGEST);
  };
}
