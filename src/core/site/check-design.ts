import type { Issue } from '../issue.ts';
import { unknownName } from '../did-you-mean.ts';
import { doubledBlockIds } from '../design/block-ids.ts';
import { type Environments, singleName } from '../design/environment.ts';
import { otherSidesOf } from '../design/other-sides.ts';
import type { DesignNames } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';
import { checkComputed } from './check-computed.ts';
import { checkForm } from './check-form.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type { TextFormSpec } from '../design/text-form-spec.ts';

/** What is wrong with a design beyond its shape: doubled keys, and names that lead nowhere. */
export function checkDesign(design: Design, environments: Environments): Issue[] {
  const names = {
    types: design.types.map((t) => t.key),
    sets: design.subjectSets,
    textForms: design.textForms,
  };
  return [
    ...doubledNames(design),
    ...doubled(
      design.listings.flatMap((l) => l.address ?? []),
      'listings',
      'address',
    ),
    ...design.templates.flatMap(({ key, blocks, slots }) =>
      doubledBlockIds([blocks, slots]).map((id) => ({
        code: 'doubled-id',
        path: `templates/${key}/blocks`,
        message: `Two blocks have the id "${id}".`,
        fix: 'Give each its own id, or leave it out.',
      })),
    ),
    ...design.types.flatMap((t) => checkType(t, design, names)),
    ...design.textForms.flatMap((form) => checkTextForm(form, design)),
    ...checkComputed(design, environments),
  ];
}

/** The lists of a design whose parts have keys, by the folders of theirs. */
const KEYED = {
  types: 'types',
  listings: 'listings',
  templates: 'templates',
  subjectSets: 'subjects',
  picks: 'picks',
  textForms: 'text-forms',
  styles: 'styles',
  languages: 'languages',
} as const;

/** Keys that two parts of a list have, and ids that parts of different keys share. */
function doubledNames(design: Design): Issue[] {
  return (Object.keys(KEYED) as (keyof typeof KEYED)[]).flatMap((list) => [
    ...doubled(
      design[list].map(({ key }) => key),
      KEYED[list],
    ),
    ...doubledIds(design[list], KEYED[list]),
  ]);
}

function doubled(keys: string[], path: string, what = 'key'): Issue[] {
  const seen = new Set<string>();
  const again = new Set(keys.filter((k) => seen.size === seen.add(k).size));
  return [...again].map((k) => ({
    code: 'doubled-key',
    path: `${path}/${k}`,
    message: `The ${what} "${k}" is used twice.`,
    fix: `Give each its own ${what}.`,
  }));
}

/** Parts of different keys that share an id. */
function doubledIds(parts: { id: string; key: string }[], path: string): Issue[] {
  const firstKeys = new Map<string, string>();
  return parts.flatMap(({ id, key }) => {
    const first = firstKeys.get(id) ?? key;
    firstKeys.set(id, first);
    if (first === key) return [];
    return [
      {
        code: 'doubled-id',
        path: `${path}/${key}/id`,
        message: `The id "${id}" is also that of "${first}".`,
        fix: 'Give each its own id, or leave it out.',
      },
    ];
  });
}

function checkType(type: ContentType, design: Design, names: DesignNames): Issue[] {
  const path = `types/${type.key}`;
  const ids = type.fields.map((f) => f.id);
  return [
    ...doubled(
      type.fields.map((f) => f.key),
      `${path}/fields`,
    ),
    ...doubled(ids, `${path}/fields`, 'id'),
    ...checkNamed(type, path),
    ...checkTree(type, path),
    ...checkOtherSides(type, design),
    ...checkSingle(type, design, path),
    ...checkRetired(type, design, path),
    ...checkPicks(type, design, path),
    ...type.fields.flatMap((f) => kindOf(f).check(f, `${path}/fields/${f.key}`, names)),
    ...checkForm(type.fields, design, path),
  ];
}

/** Whether the types, styles and other forms that a form of texts names are there. */
function checkTextForm(form: TextFormSpec, { types, styles, textForms }: Design): Issue[] {
  const named = (
    property: string,
    names: string[] = [],
    [what, there]: [string, readonly { key: string }[]],
  ): Issue[] => {
    const keys = there.map((p) => p.key);
    return names
      .filter((name) => !keys.includes(name))
      .map((name) => {
        const words = `${form.label} names the ${what} "${name}", and there is none.`;
        return unknownName(`text-forms/${form.key}/${property}`, words, name, keys);
      });
  };
  return [
    ...named('parts', form.parts, ['content type', types]),
    ...named('styles', form.styles, ['style', styles]),
    ...named('roles', Object.values(form.roles ?? {}), ['form of texts', textForms]),
  ];
}

/** Whether the fields that name and introduce an entry are there. */
function checkNamed({ label, naming, summary, fields }: ContentType, path: string): Issue[] {
  const keys = fields.map((f) => f.key);
  return Object.entries({ naming, summary }).flatMap(([property, name]) =>
    name === undefined || keys.includes(name)
      ? []
      : [unknownName(`${path}/${property}`, `${label} has no field "${name}".`, name, keys)],
  );
}

/** Names that patterns of a type could take for two things: fields, and other sides. */
function checkOtherSides(type: ContentType, design: Design): Issue[] {
  const taken = new Map(type.fields.map((f) => [f.key, `the field ${f.label}`]));
  return otherSidesOf(type, design).flatMap(({ name, type: from, field }) => {
    const is = `the other side of ${field.label} of ${from.label}`;
    const other = taken.get(name);
    taken.set(name, is);
    if (other === undefined) return [];
    return [
      {
        code: 'doubled-key',
        path: `types/${from.key}/fields/${field.key}/otherKey`,
        message: `Patterns of ${type.label} would take "${name}" for ${other} and for ${is}.`,
        fix: 'Call the other side something else.',
      },
    ];
  });
}

function checkTree({ fields }: ContentType, path: string): Issue[] {
  const [, second] = fields.filter((f) => f.sitsWithin);
  if (!second) return [];
  return [
    {
      code: 'several-within',
      path: `${path}/fields/${second.key}`,
      message: 'Only one reference of a type makes the tree of pages.',
      fix: 'Leave sitsWithin on one of them.',
    },
  ];
}

/** Whether patterns can tell the entry of a single type from what else the site has. */
function checkSingle({ key, single }: ContentType, { types }: Design, path: string): Issue[] {
  if (!single) return [];
  const name = singleName(key);
  const isTaken =
    ['name', 'url', 'strapline'].includes(name) ||
    types.some((other) => other.single && other.key !== key && singleName(other.key) === name);
  if (!isTaken) return [];
  return [
    {
      code: 'reserved-key',
      path: `${path}/key`,
      message: `Patterns read the entry of a single type as "site.${name}", and that is something else.`,
      fix: 'Choose another key.',
    },
  ];
}

/** Whether retired pages lead to a listing that stands somewhere. */
function checkRetired({ retired }: ContentType, { listings, site }: Design, path: string): Issue[] {
  if (typeof retired !== 'object' || !('listing' in retired)) return [];
  const { listing: key } = retired;
  const listing = listings.find((l) => l.key === key);
  const keys = listings.map((l) => l.key);
  if (!listing) return [unknownName(`${path}/retired`, `There is no listing "${key}".`, key, keys)];
  const isFront = site.front && 'listing' in site.front && site.front.listing === key;
  if (listing.address !== undefined || isFront) return [];
  return [
    {
      code: 'no-address',
      path: `${path}/retired`,
      message: `The listing "${key}" has no address, so nothing can lead there.`,
      fix: 'Give it one, or name another listing.',
    },
  ];
}

/** Whether the picks that new entries join are there. */
function checkPicks({ presets }: ContentType, { picks }: Design, path: string): Issue[] {
  const keys = picks.map((p) => p.key);
  return (presets.picks ?? []).flatMap((key) =>
    keys.includes(key)
      ? []
      : [unknownName(`${path}/presets/picks`, `There are no picks "${key}".`, key, keys)],
  );
}
