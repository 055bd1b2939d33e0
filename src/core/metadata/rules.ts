import { type Issue, at } from '../issue.ts';
import { didYouMean } from '../did-you-mean.ts';
import { valueKindOf } from '../design/field-values.ts';
import { type CompiledPattern, compilePattern } from '../pattern/compile.ts';
import { quoted } from '../pattern/print.ts';
import type { Environment } from '../pattern/types.ts';
import type { Environments } from '../design/environment.ts';
import type { ContentType, Design, SeoRules } from '../design/spec.ts';
import type { EachSpec, Listing } from '../design/listing-spec.ts';

/** Compiled SEO rules; patterns are tried in order until one gives something. */
export interface CompiledSeo {
  title: CompiledPattern[];
  description: CompiledPattern[];
  canonical: CompiledPattern | null;
  /** Field id of the share picture. */
  picture: string | null;
  index: boolean;
  follow: boolean;
  sitemap: boolean;
  shareType: 'website' | 'article' | 'profile';
  needs: string[][];
  /** Of a listing's pages for one value. */
  ofValues?: Pick<CompiledSeo, 'title' | 'description'>;
}

/** The rules of every type and listing. */
export interface SeoBook {
  types: Map<string, CompiledSeo>;
  listings: Map<string, CompiledSeo>;
}

/** Compiles the SEO rules: the type's over the site's defaults over the built-in ones. */
export function compileSeo(
  design: Design,
  environments: Environments,
): { seo: SeoBook; issues: Issue[] } {
  const issues: Issue[] = [];
  const types = new Map(
    design.types.map((t) => [t.key, typeSeo(t, design.site.seo, environments.ofType(t), issues)]),
  );
  const listings = new Map(
    design.listings.map((l) => [
      l.key,
      listingSeo(l, design.site.seo, environments.ofListing(), issues),
    ]),
  );
  return { seo: { types, listings }, issues };
}

function typeSeo(
  type: ContentType,
  site: SeoRules,
  env: Environment,
  issues: Issue[],
): CompiledSeo {
  const rich = type.fields.find((f) => valueKindOf(f) === 'richtext');
  const path = `types/${type.key}/seo`;
  const compile = compiler(env, issues);
  const summary = type.summary === undefined ? [] : [builtIn(type, type.summary)];
  return finish(
    {
      title: [
        ...compile(type.seo.title, `${path}/title`),
        ...compile(site.title, 'site/seo/title'),
        ...compile(`{${type.naming}}`, `types/${type.key}/naming`),
        ...compile(rich && `{firstHeading(${rich.key})}`, path),
      ],
      description: [
        ...compile(type.seo.description, `${path}/description`),
        ...compile(site.description, 'site/seo/description'),
        ...summary.flatMap((source) => compile(source, `types/${type.key}/summary`)),
        ...compile(rich && `{limit(firstParagraph(${rich.key}), 155)}`, path),
      ],
      canonical: compile(type.seo.canonical, `${path}/canonical`)[0] ?? null,
      picture: sharePicture(type, path, issues),
    },
    { ...site, ...type.seo },
  );
}

/** Id of the field with the share picture: the one named, else the first of pictures. */
function sharePicture(type: ContentType, path: string, issues: Issue[]): string | null {
  const pictures = type.fields.filter((f) => valueKindOf(f) === 'media');
  const { picture: chosen } = type.seo;
  const picture = pictures.find((f) => chosen === undefined || f.key === chosen);
  if (chosen !== undefined && !picture)
    issues.push({
      code: 'unknown-field',
      path: `${path}/picture`,
      message: `${type.label} has no picture field "${chosen}".`,
      fix: didYouMean(
        chosen,
        pictures.map((f) => f.key),
        'Name a field that holds a picture.',
      ),
    });
  return picture?.id ?? null;
}

function builtIn(type: ContentType, key: string): string {
  const field = type.fields.find((f) => f.key === key);
  return field && valueKindOf(field) === 'richtext'
    ? `{limit(firstParagraph(${key}), 155)}`
    : `{${key}}`;
}

function listingSeo(
  listing: Listing,
  site: SeoRules,
  env: Environment,
  issues: Issue[],
): CompiledSeo {
  const path = `listings/${listing.key}/seo`;
  const compile = compiler(env, issues);
  const title = [
    ...compile(listing.seo.title, `${path}/title`),
    ...compile(`{${quoted(listing.label)}}`, path),
  ];
  const description = compile(listing.seo.description, `${path}/description`);
  const seo = finish(
    { title, description, canonical: null, picture: null },
    { ...site, ...listing.seo },
  );
  return listing.each ? { ...seo, ofValues: valueSeo(listing, listing.each, compile) } : seo;
}

/** What is said of a listing's pages for one value: their name, and what describes it. */
function valueSeo(
  { key }: Listing,
  { title, description }: EachSpec,
  compile: ReturnType<typeof compiler>,
): NonNullable<CompiledSeo['ofValues']> {
  const path = `listings/${key}/each`;
  return {
    title: [...compile(title, `${path}/title`), ...compile('{value}', path)],
    description: [
      ...compile(description, `${path}/description`),
      ...compile('{value.description}', path),
    ],
  };
}

function compiler(
  env: Environment,
  issues: Issue[],
): (source: string | undefined, path: string) => CompiledPattern[] {
  return (source, path) => {
    if (source === undefined) return [];
    const compiled = compilePattern(source, env, 'metadata');
    issues.push(...at(path, compiled.issues));
    return compiled.pattern ? [compiled.pattern] : [];
  };
}

function finish(
  parts: Pick<CompiledSeo, 'title' | 'description' | 'canonical' | 'picture'>,
  rules: SeoRules,
): CompiledSeo {
  const patterns = [
    ...parts.title,
    ...parts.description,
    ...(parts.canonical ? [parts.canonical] : []),
  ];
  const needs = patterns
    .flatMap((p) => p.chains)
    .flatMap((c) => (c.root === '' && c.references > 0 ? [c.fields.slice(0, c.references)] : []));
  return {
    ...parts,
    needs,
    index: rules.index ?? true,
    follow: rules.follow ?? true,
    sitemap: rules.sitemap ?? true,
    shareType: rules.shareType ?? 'website',
  };
}
