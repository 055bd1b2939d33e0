import { z } from 'zod';
import type { Issue } from '@/core/issue.ts';
import {
  type Design,
  designSpec,
  picksSpec,
  redirectSpec,
  siteSpec,
  subjectSetSpec,
  templateSpec,
  typeSpec,
} from '@/core/design/spec.ts';
import { languageSpec, tag } from '@/core/design/language-spec.ts';
import { styleSpec, textFormSpec } from '@/core/design/text-form-spec.ts';
import { listingSpec } from '@/core/design/listing-spec.ts';
import { type SubjectState, mergedInto } from '@/core/design/subject-change.ts';
import { SLUG, type WordsByTag, subjectWords } from '@/core/design/subject-words.ts';
import { lookSpec } from '@/core/style/look-spec.ts';
import { slugText } from '@/core/pattern/slug.ts';
import { templateFileSpec } from '@/core/template/template-schema.ts';
import { dataFile, readText } from './read-folder.ts';
import { readAs } from './read-as.ts';
import { HISTORY_FILES } from './read-history.ts';
import { type GivenPicks, memberSpec } from './read-picks.ts';
import type { YamlFile } from './yaml-file.ts';

/** A subject of a folder, with the key of its set; of the file, or merged into one that is. */
export type SubjectToLoad = SubjectState & { set: string };

/** The design of a site folder, its subjects, and where each part stands. */
export interface ReadDesign {
  design: Design | null;
  subjects: SubjectToLoad[];
  picks: GivenPicks[];
  issues: Issue[];
  /** Puts the file and line in place of a path within the design. */
  locate(issue: Issue): Issue;
}

/** A word that YAML may have read as a number. */
const word = z.union([z.string(), z.number()]).transform(String);
const subjectKey = word.pipe(z.string().min(1).max(100));
const subjectName = word.pipe(z.string().min(1));
const slug = z.string().regex(SLUG, 'A slug is made of small letters, digits and single hyphens.');
const subjectItem: z.ZodType<SubjectItem> = z.lazy(() =>
  z.strictObject({
    key: subjectKey,
    name: subjectName,
    slug: slug.optional(),
    description: z.string().default(''),
    picture: z.string().nullable().default(null),
    /** What further languages say of it, by their tags. */
    languages: z.record(tag, subjectWords.extend({ slug: slug.optional() })).default({}),
    /** Others that are one with it by now, and count as it. */
    merged: z.array(z.strictObject({ key: subjectKey, name: subjectName })).default([]),
    below: z.array(subjectItem).default([]),
  }),
);
interface SubjectItem {
  key: string;
  name: string;
  slug?: string | undefined;
  description: string;
  picture: string | null;
  languages: WordsByTag;
  merged: { key: string; name: string }[];
  below: SubjectItem[];
}
const subjectFile = z.strictObject({
  id: z.string().optional(),
  key: z.string(),
  label: z.string().optional(),
  kind: z.enum(['tags', 'tree']),
  subjects: z.array(subjectItem).default([]),
});
const picksFile = z.strictObject({
  id: z.string().optional(),
  key: z.string(),
  label: z.string().optional(),
  description: z.string().optional(),
  /** Who stands in them, in their order. */
  members: z.array(memberSpec).default([]),
});
const redirectFile = z.array(redirectSpec);
const stylesFile = z.array(styleSpec);
const styleFile = z.strictObject({ css: z.string() });
/** Keys in the order in which the parts of a folder stand. */
const orderFile = z.partialRecord(
  z.enum(['types', 'listings', 'templates', 'subjects', 'picks', 'text-forms', 'languages']),
  z.array(z.string()),
);

/** The files a design is made of, by folder. */
const PARTS = { types: typeSpec, listings: listingSpec, templates: templateSpec } as const;

/** JSON Schemas of the files of a site folder but entries, by name (draft 2020-12). */
export function designSchemas(): Record<string, unknown> {
  const files = {
    site: siteSpec,
    type: typeSpec,
    listing: listingSpec,
    template: templateFileSpec(),
    subjects: subjectFile,
    picks: picksFile,
    redirects: redirectFile,
    'text-form': textFormSpec,
    language: languageSpec,
    styles: stylesFile,
    order: orderFile,
    style: styleFile,
    look: lookSpec,
    ...HISTORY_FILES,
  };
  return Object.fromEntries(
    Object.entries(files).map(([name, schema]) => [
      name,
      z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }),
    ]),
  );
}

/** Reads the design files of a site folder. */
export function readDesign(folder: string, files: string[]): ReadDesign {
  return new DesignReader(folder, files).read();
}

class DesignReader {
  private readonly issues: Issue[] = [];
  private readonly places = new Map<string, YamlFile>();

  constructor(
    private readonly folder: string,
    private readonly files: string[],
  ) {}

  read(): ReadDesign {
    const site = this.lone('site', siteSpec);
    if (!dataFile(this.files, 'site'))
      this.issues.push({
        code: 'file-missing',
        path: 'site.yaml',
        line: 1,
        message:
          'A site folder has a file "site.yaml" with the site’s name, url, zone and language.',
        fix: 'Add it; docs/site-folder.md shows one.',
      });
    const parts = {
      types: this.all('types', PARTS.types),
      listings: this.all('listings', PARTS.listings),
      templates: this.all('templates', PARTS.templates),
      textForms: this.all('text-forms', textFormSpec),
      languages: this.all('languages', languageSpec),
    };
    const sets = this.all('subjects', subjectFile);
    const subjects = sets.flatMap((set) => flatten(set.key, set.subjects, null));
    const picks = this.all('picks', picksFile);
    const given = picks.map(({ id, key, members }): GivenPicks => ({
      ...{ id: id ?? key, members, place: (i) => `picks/${key}/members/${i + 1}` },
    }));
    const others = this.others();
    const rest = { subjects, picks: given, issues: this.issues };
    const locate = (issue: Issue): Issue => this.locate(issue);
    if (!site) return { design: null, ...rest, locate };
    const spec = {
      site,
      ...parts,
      ...others,
      subjectSets: sets.map(({ subjects: _, ...set }) => subjectSetSpec.parse(set)),
      picks: picks.map(({ members: _, ...own }) => picksSpec.parse(own)),
    };
    return { design: this.issues.length > 0 ? null : designSpec.parse(spec), ...rest, locate };
  }

  /** What stands in files of its own, of which there is one each. */
  private others() {
    const look = this.lone('look', lookSpec, 'style/look');
    return {
      redirects: this.lone('redirects', redirectFile) ?? [],
      styles: this.lone('styles', stylesFile) ?? [],
      css: this.css(),
      ...(look ? { look } : {}),
    };
  }

  private all<T extends { key: string }>(directory: string, schema: z.ZodType<T>): T[] {
    const parts = this.files
      .filter((f) => f.startsWith(`${directory}/`))
      .flatMap((f) => {
        if (/\.(ya?ml|json)$/.test(f)) return this.one(f, schema, null) ?? [];
        this.issues.push({
          code: 'unknown-file',
          path: f,
          line: 1,
          message: `The folder ${directory}/ holds .yaml and .json files, and this is none.`,
          fix: 'Rename it, or take it out of the folder.',
        });
        return [];
      });
    return this.ordered(directory, parts);
  }

  /** A file of which there is one. */
  private lone<T>(name: string, schema: z.ZodType<T>, place = name): T | undefined {
    const file = dataFile(this.files, name);
    return file === undefined ? undefined : this.one(file, schema, place);
  }

  private one<T>(file: string, schema: z.ZodType<T>, place: string | null): T | undefined {
    const { value, yaml, issues } = readAs(this.folder, file, schema);
    this.issues.push(...issues);
    if (yaml === null) return undefined;
    this.places.set(place ?? `${file.split('/')[0]}/${(value as { key: string }).key}`, yaml);
    return value as T;
  }

  /** Parts in the order that the folder gives; those it does not name last, by file name. */
  private ordered<T extends { key: string }>(folder: string, parts: T[]): T[] {
    const place = new Map(this.order()[folder]?.map((key, i) => [key, i]));
    const placeOf = ({ key }: T): number => place.get(key) ?? Infinity;
    return parts.sort((a, b) => (placeOf(a) === placeOf(b) ? 0 : placeOf(a) - placeOf(b)));
  }

  private order(): Partial<Record<string, string[]>> {
    return this.lone('order', orderFile) ?? {};
  }

  private css(): string {
    if (dataFile(this.files, 'style')) return this.lone('style', styleFile)?.css ?? '';
    if (!this.files.includes('style.css')) return '';
    const { text, issues } = readText(this.folder, 'style.css');
    this.issues.push(...issues);
    return text ?? '';
  }

  private locate(issue: Issue): Issue {
    const path = issue.path ?? '';
    if (path === 'style/css' && this.files.includes('style.css'))
      return { ...issue, path: 'style.css' };
    const place = [...this.places.keys()]
      .filter((p) => path === p || path.startsWith(`${p}/`))
      .sort((a, b) => b.length - a.length)[0];
    if (place === undefined)
      return { line: 1, ...issue, path: path.startsWith('site') ? this.siteFile() : path };
    const yaml = this.places.get(place)!;
    const keys = this.keysOf(yaml, path.slice(place.length).split('/').filter(Boolean));
    return { ...issue, path: yaml.file, line: yaml.lineOf(keys) };
  }

  private siteFile(): string {
    return dataFile(this.files, 'site') ?? 'site.yaml';
  }

  /** Path words as YAML keys: list places count from 1, and fields go by their key. */
  private keysOf(yaml: YamlFile, words: string[]): (string | number)[] {
    let value = yaml.value;
    return words.map((word) => {
      let key: string | number = word;
      if (Array.isArray(value)) {
        const named = value.findIndex((v) => (v as { key?: string } | null)?.key === word);
        key = named >= 0 ? named : Number(word) - 1;
      }
      value = (value as Record<string | number, unknown> | null | undefined)?.[key];
      return key;
    });
  }
}

function flatten(set: string, items: SubjectItem[], parent: string | null): SubjectToLoad[] {
  return items.flatMap((item) => [
    {
      set,
      key: item.key,
      name: item.name,
      slug: item.slug ?? slugText(item.key, 'en'),
      description: item.description,
      picture: item.picture,
      languages: item.languages,
      parent,
      merged: null,
    },
    ...item.merged.map((one) => ({ set, ...mergedInto(item.key, one) })),
    ...flatten(set, item.below, item.key),
  ]);
}
