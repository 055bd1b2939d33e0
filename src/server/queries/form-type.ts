import { type Presets } from '@/core/design/presets.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Field } from '@/core/design/field.ts';
import type { Role } from '@/core/design/roles.ts';
import { mentionsOf, parseValue, targetOf } from '@/core/design/field-values.ts';
import { shownWhen } from '@/core/design/shown.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { isPart } from '@/core/design/text-form.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import { paragraphsOf } from '@/core/rich-text/index.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { entryName } from './display.ts';
import { notesOf } from './field-notes.ts';
import { type FormField, entriesOf } from './form-field.ts';
import { optionsOf } from './offers.ts';
import { textOffer } from './text-offer.ts';
import type { SiteView } from './site-view.ts';

/** A type as the form of its entries has it. */
export interface FormType {
  id: string;
  key: string;
  label: string;
  hasPages: boolean;
  /** What its entries begin with. */
  presets: Required<Omit<Presets, 'listed' | 'template'>> & Pick<Presets, 'listed'>;
  /** Its page template, and those that entries may choose in its place. */
  template: string;
  templates: { id: string; label: string }[];
  fields: FormField[];
}

/** What a new entry, or item of a group, starts with; `today` is that of the instant. */
export function defaultsOf(fields: readonly Field[], zone: string, now: Instant): Values {
  return Object.fromEntries(
    fields.map((f) => {
      if (f.fields) return [f.id, f.many ? null : defaultsOf(f.fields, zone, now)];
      const read = parseValue(f.default, f, { now, zone, richText: paragraphsOf });
      return [f.id, read.ok ? read.value : null];
    }),
  );
}

function setOf(view: SiteView, key: string, at: Instant): { set: string; language: string } {
  const { design, setIds } = view.at(at)!.site;
  return { set: setIds.get(key) ?? key, language: design.site.language };
}

function limitsOf({ maxLength, min, max, decimals, unit }: Field): FormField['limits'] {
  return { maxLength, min, max, decimals, unit };
}

/** As of when a form is made, for whom, and for which entry; null for a new one. */
interface Asked {
  at: Instant;
  entry: string | null;
  /** Id of the type that the fields are of. */
  type: string;
  /** Of whoever fills it in. */
  role: Role;
}

/** A type as a form has it, for what the form holds. */
export function formType(
  view: SiteView,
  type: ContentType,
  values: Values,
  asked: Omit<Asked, 'type'>,
): FormType {
  const fields = formFields(view, type.fields, values, { ...asked, type: type.id });
  return {
    id: type.id,
    key: type.key,
    label: type.label,
    hasPages: type.address !== undefined,
    presets: presetsOfType(view, type, asked.at),
    ...templatesOfType(view, type, asked.at),
    fields,
  };
}

/** What entries of a type begin with, by the type or the site. */
function presetsOfType(view: SiteView, { key, presets }: ContentType, at: Instant) {
  const seo = view.at(at)?.site.seo.types.get(key);
  const { index = true, follow = true, sitemap = true } = seo ?? {};
  return { ...presets, index, follow, sitemap };
}

/** The page template of a type, by name, and those that its entries may choose. */
function templatesOfType(
  view: SiteView,
  { template: own, templates: further = [] }: ContentType,
  at: Instant,
): Pick<FormType, 'template' | 'templates'> {
  const all = view.at(at)?.site.design.templates ?? [];
  const chosen = all.filter(({ key }) => further.includes(key));
  return {
    template: all.find(({ key }) => key === own)?.label ?? 'the automatic page',
    templates: chosen.map(({ id, label }) => ({ id, label })),
  };
}

/** Fields as a form has them, those of groups within theirs. */
export function formFields(
  view: SiteView,
  all: readonly Field[],
  values: Values,
  asked: Asked,
): FormField[] {
  const { at, entry } = asked;
  return all.map((f): FormField => {
    const target = targetOf(f);
    const named = mentionsOf(values, f).filter((m) => m.of === 'entry');
    return {
      id: f.id,
      key: f.key,
      label: f.label,
      control: f.control ?? kindOf(f).control,
      section: f.section,
      half: f.half,
      hidden: f.hidden,
      shownWhen: shownWhen(f, all),
      limits: limitsOf(f),
      required: f.required,
      many: f.many,
      formats: f.formats,
      maxKilobytes: f.maxKilobytes,
      help: f.help ?? null,
      notes: notesOf(view, f, all, { at, entry }),
      options: optionsOf(view, f, at),
      ...(target?.of === 'subjects' ? { subjects: setOf(view, target.set, at) } : {}),
      ...(target?.of === 'entries' ? entriesOf(view, target.types, at) : {}),
      names: Object.fromEntries(named.map(({ key }) => [key, entryName(view, key)])),
      ...(f.kind === 'richtext' ? { text: textOffer(view, f, named, asked) } : {}),
      ...(f.fields ? groupOf(view, f, values, asked) : {}),
    };
  });
}

/** The form of a part of a text: its fields, with what this one of them holds. */
export function partForm(
  view: SiteView,
  actor: Actor,
  { type: id, values, entry }: { type: string; values: Values; entry: string | null },
  at: Instant,
): { fields: FormField[]; starts: Values } | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  const type = site?.types.get(id);
  if (!type || !isPart(type)) return null;
  return {
    fields: formFields(view, type.fields, values, { at, entry, type: id, role: actor.role }),
    starts: defaultsOf(type.fields, site!.design.site.zone, at),
  };
}

/** What the form of a group has besides: its fields, and what a new item starts with. */
function groupOf(
  view: SiteView,
  { id, fields = [] }: Field,
  values: Values,
  asked: Asked,
): Required<Pick<FormField, 'fields' | 'starts'>> {
  const items = valuesOf(values, id) as Values[];
  const together = fields.map((f) => [f.id, items.flatMap((item) => valuesOf(item, f.id))]);
  const { zone } = view.at(asked.at)!.site.design.site;
  return {
    fields: formFields(view, fields, Object.fromEntries(together), asked),
    starts: defaultsOf(fields, zone, asked.at),
  };
}
