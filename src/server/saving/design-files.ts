import type { z } from 'zod';
import {
  type Design,
  redirectSpec,
  siteSpec,
  subjectSetSpec,
  templateSpec,
  typeSpec,
} from '@/core/design/spec.ts';
import { listingSpec } from '@/core/design/listing-spec.ts';
import { withIds } from '@/core/design/block-ids.ts';
import { same } from '@/core/design-edit/properties.ts';
import type { Subject } from '@/core/design/values.ts';
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
} as const satisfies Record<string, { folder: string; spec: z.ZodType }>;

type Listed = keyof typeof FOLDERS;

/** The files of a design; `subjects` are those of all sets, in their order. */
export function designFiles(
  design: Design,
  subjects: readonly Subject[],
  names: FileNames,
): SavedFile[] {
  const order: Record<string, string[]> = {};
  const treeOf = treesOf(subjects);
  const parts = (Object.keys(FOLDERS) as Listed[]).flatMap((list) => {
    const { folder, spec } = FOLDERS[list];
    const files = design[list].map((part) => {
      const more = list === 'subjectSets' ? { subjects: treeOf(part.id) } : {};
      return {
        path: names.take(folder, part.key, '.yaml'),
        content: yamlText({ ...lean(spec, part), ...more }),
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

/** A style sheet that is not ASCII stands in YAML, where it can be written so. */
function styleFile(css: string): SavedFile[] {
  if (css === '') return [];

  if (/^[\x00-\x7f]*$/.test(css)) return [{ path: 'style.css', content: css }];
  return [{ path: 'style.yaml', content: yamlText({ css }) }];
}

type Item = Omit<Subject, 'set' | 'parent'> & { below?: Item[] };

/** The subjects of each set as its file has them, those below others within them; by set. */
function treesOf(subjects: readonly Subject[]): (set: string) => object[] {
  const below = new Map<string, Subject[]>();
  const under = (set: string, parent: string | null): Subject[] => {
    const name = JSON.stringify([set, parent]);
    const found = below.get(name) ?? [];
    below.set(name, found);
    return found;
  };
  for (const subject of subjects) under(subject.set, subject.parent).push(subject);
  const itemsOf = (set: string, parent: string | null): Item[] =>
    under(set, parent).map(({ key, name, slug, description }) => {
      const inner = itemsOf(set, key);
      return {
        key,
        name,
        slug,
        ...(description === '' ? {} : { description }),
        ...(inner.length > 0 ? { below: inner } : {}),
      } as Item;
    });
  return (set) => itemsOf(set, null);
}
