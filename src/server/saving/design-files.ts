import type { z } from 'zod';
import {
  type Design,
  picksSpec,
  redirectSpec,
  siteSpec,
  subjectSetSpec,
  templateSpec,
  typeSpec,
} from '@/core/design/spec.ts';
import { languageSpec } from '@/core/design/language-spec.ts';
import { styleSpec, textFormSpec } from '@/core/design/text-form-spec.ts';
import { listingSpec } from '@/core/design/listing-spec.ts';
import { withIds } from '@/core/design/block-ids.ts';
import { same } from '@/core/design-edit/properties.ts';
import type { SubjectState } from '@/core/design/subject-change.ts';
import { compareCodePoints } from '@/core/text.ts';
import { lean } from './lean.ts';
import type { FileNames, SavedFile } from './saved-file.ts';
import { yamlText } from './yaml-text.ts';

/** The lists of a design that have a folder each. */
const FOLDERS = {
  types: { folder: 'types', spec: typeSpec },
  listings: { folder: 'listings', spec: listingSpec },
  templates: { folder: 'templates', spec: templateSpec },
  subjectSets: { folder: 'subjects', spec: subjectSetSpec },
  picks: { folder: 'picks', spec: picksSpec },
  textForms: { folder: 'text-forms', spec: textFormSpec },
  languages: { folder: 'languages', spec: languageSpec },
} as const satisfies Record<string, { folder: string; spec: z.ZodType }>;

type Listed = keyof typeof FOLDERS;

/** A subject as it stands, with the id of its set. */
export type SubjectOfSet = SubjectState & { set: string };

/** What stands in the files of a design besides. */
interface Members {
  /** The subjects of all sets, in their order. */
  subjects: readonly SubjectOfSet[];
  /** Who stands in picks, by their ids. */
  picks: ReadonlyMap<string, unknown[]>;
}

/** The files of a design. */
export function designFiles(
  design: Design,
  { subjects, picks }: Members,
  names: FileNames,
): SavedFile[] {
  const order: Record<string, string[]> = {};
  const treeOf = treesOf(subjects);
  const within = (list: Listed, id: string): object => {
    if (list === 'subjectSets') return { subjects: treeOf(id) };
    const members = list === 'picks' ? picks.get(id) : undefined;
    return members ? { members } : {};
  };
  const parts = (Object.keys(FOLDERS) as Listed[]).flatMap((list) => {
    const { folder, spec } = FOLDERS[list];
    const files = design[list].map((part) => {
      return {
        path: names.take(folder, part.key, '.yaml'),
        content: yamlText({ ...lean(spec, part), ...within(list, part.id) }),
      };
    });
    const paths = files.map(({ path }) => path);
    if (!same(paths, paths.toSorted(compareCodePoints)))
      order[folder] = design[list].map(({ key }) => key);
    return files;
  });
  return [
    { path: 'site.yaml', content: yamlText(lean(siteSpec, design.site)) },
    ...parts,
    ...(Object.keys(order).length > 0 ? [{ path: 'order.yaml', content: yamlText(order) }] : []),
    ...redirectsFile(design.redirects),
    ...stylesFile(design.styles),
    ...(design.look ? [{ path: 'look.yaml', content: yamlText(design.look) }] : []),
    ...styleFile(design.css),
  ];
}

function redirectsFile(redirects: Design['redirects']): SavedFile[] {
  if (redirects.length === 0) return [];
  const short = redirects.map(({ id: _, ...rest }) => lean(redirectSpec, rest));
  const read = withIds(
    short.map((redirect) => redirectSpec.parse(redirect)),
    'r',
  );
  const content = yamlText(same(read, redirects) ? short : redirects);
  return [{ path: 'redirects.yaml', content }];
}

function stylesFile(styles: Design['styles']): SavedFile[] {
  if (styles.length === 0) return [];
  const content = yamlText(styles.map((style) => lean(styleSpec, style)));
  return [{ path: 'styles.yaml', content }];
}

/** A style sheet that is not ASCII stands in YAML, where it can be written so. */
function styleFile(css: string): SavedFile[] {
  if (css === '') return [];

  if (/^[\x00-\x7f]*$/.test(css)) return [{ path: 'style.css', content: css }];
  return [{ path: 'style.yaml', content: yamlText({ css }) }];
}

interface Item {
  key: string;
  name: string;
  slug: string;
  description?: string;
  picture?: string;
  merged?: { key: string; name: string }[];
  below?: Item[];
}

/** The subjects of each set as its file has them, those below others within them; by set. */
function treesOf(subjects: readonly SubjectOfSet[]): (set: string) => object[] {
  const below = new Map<string, SubjectOfSet[]>();
  const merged = new Map<string, SubjectOfSet[]>();
  const among = (lists: typeof below, set: string, key: string | null): SubjectOfSet[] => {
    const name = JSON.stringify([set, key]);
    const found = lists.get(name) ?? [];
    lists.set(name, found);
    return found;
  };
  for (const subject of subjects) {
    const { set, parent, merged: into } = subject;
    (into === null ? among(below, set, parent) : among(merged, set, into)).push(subject);
  }
  const itemsOf = (set: string, parent: string | null): Item[] =>
    among(below, set, parent).map(({ key, name, slug, description, picture, languages }) => {
      const inner = itemsOf(set, key);
      const ones = among(merged, set, key).map((one) => ({ key: one.key, name: one.name }));
      return {
        key,
        name,
        slug,
        ...(description === '' ? {} : { description }),
        ...(picture === null ? {} : { picture }),
        ...(Object.keys(languages).length > 0 ? { languages } : {}),
        ...(ones.length > 0 ? { merged: ones } : {}),
        ...(inner.length > 0 ? { below: inner } : {}),
      };
    });
  return (set) => itemsOf(set, null);
}
