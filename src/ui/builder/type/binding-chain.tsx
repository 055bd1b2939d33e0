'use client';

import { type ReactNode, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { counted } from '../format.ts';
import { AddressSettings } from './address-settings.tsx';
import { PartChoice } from '../part-choice.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { PageChoices } from './page-choices.tsx';
import { ruleWords } from '@/core/timing/words.ts';
import { TimingSettings } from './timing-settings.tsx';
import { CopyFrom } from './copy-from.tsx';
import { FieldsEditor } from './fields-editor.tsx';
import { NamesSettings } from './names-settings.tsx';
import { DATE_WORDS, PresetSettings } from './preset-settings.tsx';
import { StarterLines } from '../starters/starter-lines.tsx';
import { SeoSettings } from './seo-settings.tsx';

type Spec = TypeDetail['spec'];

interface Props {
  spec: Spec;
  detail: TypeDetail;
  outcome: TypeOutcome;
  clock: Clock;
  /** Id of the field that is opened at first; null for none. */
  opened: string | null;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
  /** Gives the type, or a field of it, another key at once. */
  onRename: (path: string, was: string, now: string) => void;
}

/** A link of the chain: what is set and what it gives, and opened what it is set by. */
interface ChainLink {
  key: string;
  label: string;
  set: boolean;
  gives: ReactNode;
  content: ReactNode;
}

/**
 * Names · Fields · Address · Page · Card · Lists · SEO · Timing · Presets · Starters: closed, each link is one line of what is set and
 * what it gives.
 */
export function BindingChain(props: Props) {
  const { spec, outcome } = props;
  const [open, setOpen] = useState<string | null>(props.opened === null ? 'address' : 'fields');
  const place = `types/${spec.key}/`;
  const issuesAt = (name: string): Issue[] =>
    outcome.issues.filter(({ path = '' }) => `${path}/`.startsWith(`${place}${name}/`));
  const links = [
    namesLink(props, issuesAt),
    fieldsLink(props, issuesAt),
    addressLink(props, issuesAt('address')),
    pageLink(props),
    cardLink(props),
    listsLink(props),
    seoLink(props, issuesAt),
    timingLink(props, issuesAt),
    presetsLink(props),
    ...startersLink(props),
  ];
  return (
    <div className="border-b border-rule">
      {links.map(({ key, content, ...link }) => (
        <Link
          key={key}
          {...link}
          wrong={(PLACES[key] ?? [key]).some((place) => issuesAt(place).length > 0)}
          open={open === key}
          onToggle={() => setOpen(open === key ? null : key)}
        >
          {content}
        </Link>
      ))}
    </div>
  );
}

/** Where issues of a link stand, if not at its own name. */
const PLACES: Readonly<Record<string, string[]>> = {
  names: ['label', 'plural', 'description', 'naming', 'summary'],
};

/** The type with a property set, or without it where it is blank. */
function setOrDrop(
  spec: Spec,
  key: 'address' | 'template' | 'card' | 'frame',
  value: string,
): Spec {
  const { [key]: _, ...rest } = spec;
  return (value === '' ? rest : { ...rest, [key]: value }) as Spec;
}

type IssuesAt = (place: string) => Issue[];

function namesLink(props: Props, issuesAt: IssuesAt): ChainLink {
  const { spec } = props;
  const naming = spec.fields.find((f) => f.key === spec.naming)?.label ?? spec.naming;
  return {
    key: 'names',
    label: 'Names',
    set: true,
    gives: `${spec.label}, ${spec.plural}; named by ${naming}`,
    content: <NamesSettings {...props} issuesAt={issuesAt} />,
  };
}

function fieldsLink(props: Props, issuesAt: IssuesAt): ChainLink {
  return {
    key: 'fields',
    label: 'Fields',
    set: true,
    gives: `${counted(props.spec.fields.length, 'field')}, in the order of the form`,
    content: <FieldsEditor {...props} issuesAt={issuesAt} />,
  };
}

function addressLink(
  { spec, detail, outcome, readOnly, onChange }: Props,
  issues: Issue[],
): ChainLink {
  return {
    key: 'address',
    label: 'Address',
    set: spec.address !== undefined,
    gives: outcome.path ?? outcome.noPath ?? '',
    content: (
      <>
        {!readOnly && (
          <CopyFrom
            what="address"
            own={detail.spec.key}
            types={detail.types}
            onPick={({ address = '', clash }) =>
              onChange({ ...setOrDrop(spec, 'address', address), clash })
            }
          />
        )}
        <AddressSettings
          spec={spec}
          outcome={outcome}
          readOnly={readOnly}
          issues={issues}
          onAddress={(v) => onChange(setOrDrop(spec, 'address', v))}
          onClash={(clash) => onChange({ ...spec, clash })}
        />
      </>
    ),
  };
}

function pageLink(props: Props): ChainLink {
  const { spec, detail, outcome } = props;
  const chosen = detail.templates.find((t) => t.key === spec.template)?.label ?? 'none';
  const gives = outcome.automatic ? 'automatic page, made from the fields' : chosen;
  return templateLink(props, { key: 'template', kind: 'page', label: 'Page', gives });
}

function cardLink(props: Props): ChainLink {
  const { spec, detail } = props;
  const gives = detail.templates.find((t) => t.key === spec.card)?.label ?? 'automatic card';
  return templateLink(props, { key: 'card', kind: 'card', label: 'Card', gives });
}

/** A link at which a template is chosen: that of pages, or that of cards. */
function templateLink(
  { spec, detail, readOnly, onChange }: Props,
  {
    key,
    kind,
    ...link
  }: Pick<ChainLink, 'label' | 'gives'> & {
    key: 'template' | 'card';
    kind: 'page' | 'card';
  },
): ChainLink {
  return {
    ...link,
    key,
    set: spec[key] !== undefined,
    content: (
      <>
        <Line label={kind === 'page' ? 'Template' : 'Card'} htmlFor={key}>
          <PartChoice
            id={key}
            value={spec[key]}
            none={`Automatic ${kind}`}
            options={detail.templates.filter((t) => t.kind === kind)}
            readOnly={readOnly}
            onChange={(v) => onChange(setOrDrop(spec, key, v))}
          />
          <p className="mt-1 text-note">
            <ClockLink
              className="link underline"
              href={spec[key] === undefined ? '/build/templates' : `/build/templates/${spec[key]}`}
            >
              {spec[key] === undefined ? 'Make a template' : 'Its blocks'}
            </ClockLink>
          </p>
        </Line>
        {kind === 'page' && (
          <PageChoices
            {...{ spec, readOnly, onChange }}
            templates={detail.templates}
            frames={detail.frames}
          />
        )}
      </>
    ),
  };
}

function listsLink({ detail: { listings } }: Props): ChainLink {
  return {
    key: 'lists',
    label: 'Lists',
    set: listings.length > 0,
    gives: listings.map((l) => l.label).join(', ') || 'in no listing',
    content: (
      <ul className="py-1.5">
        {listings.map((l) => (
          <li key={l.key} className="py-0.5">
            <ClockLink href={`/build/listings/${l.key}`}>{l.label}</ClockLink>{' '}
            <span className="text-muted">{l.address ?? 'inside templates'}</span>
          </li>
        ))}
        {listings.length === 0 && (
          <li className="text-muted">Entries of this type stand in no listing.</li>
        )}
      </ul>
    ),
  };
}

function seoLink(props: Props, issuesAt: (place: string) => Issue[]): ChainLink {
  const { title, description } = props.spec.seo;
  return {
    key: 'seo',
    label: 'SEO',
    set: title !== undefined || description !== undefined,
    gives: props.outcome.title,
    content: <SeoSettings {...props} issuesAt={issuesAt} />,
  };
}

function timingLink(props: Props, issuesAt: IssuesAt): ChainLink {
  const { timing = [] } = props.spec;
  return {
    key: 'timing',
    label: 'Timing',
    set: timing.length > 0,
    gives: timing.map((rule) => ruleWords(rule, props.spec)).join('; ') || 'as people plan it',
    content: <TimingSettings {...props} issuesAt={issuesAt} />,
  };
}

function presetsLink(props: Props): ChainLink {
  const { author, date, listed, picks = [] } = props.spec.presets;
  const joined = picks.map((key) => props.detail.picks.find((p) => p.key === key)?.label ?? key);
  const shown = [author ? 'who wrote it' : '', DATE_WORDS[date]].filter(Boolean);
  return {
    key: 'presets',
    label: 'Presets',
    set: shown.length + joined.length > 0 || listed !== undefined,
    gives: [
      shown.length > 0 ? `Bylines show ${shown.join(' and ')}` : 'no byline',
      ...(joined.length > 0 ? [`joins ${joined.join(', ')}`] : []),
      ...(listed === false ? ['in no list unless let in'] : []),
      ...(listed ? ['entries can be kept out of lists'] : []),
    ].join('; '),
    content: <PresetSettings {...props} />,
  };
}

/** What new entries can begin with; nothing where there can be none. */
function startersLink({ spec, detail, clock }: Props): ChainLink[] {
  const { starters } = detail;
  if (starters === null || spec.single) return [];
  const gives = starters.map(({ name }) => name).join(', ') || 'none: new entries begin blank';
  const content = <StarterLines type={detail.spec} {...{ starters, clock }} />;
  return [{ key: 'starters', label: 'Starters', set: starters.length > 0, gives, content }];
}

function Link({
  label,
  set,
  gives,
  wrong,
  open,
  onToggle,
  children,
}: {
  label: string;
  set: boolean;
  gives: ReactNode;
  wrong: boolean;
  open: boolean;
  onToggle: () => void;
  children: ReactNode;
}) {
  return (
    <section className="border-t border-rule">
      <h2 className="!text-body">
        <button
          type="button"
          aria-expanded={open}
          onClick={onToggle}
          className="grid w-full grid-cols-[112px_64px_24px_minmax(0,1fr)] items-center py-1 text-left hover:bg-hover"
        >
          <span className="font-semibold">{label}</span>
          <span className={`text-note font-normal ${wrong ? 'text-alarm' : 'text-muted'}`}>
            {wrong ? 'to mend' : set ? 'set' : 'default'}
          </span>
          <span aria-hidden className="mr-2 border-t border-spruce" />
          <span className="truncate font-normal">{gives}</span>
        </button>
      </h2>
      {open && <div className="pb-3">{children}</div>}
    </section>
  );
}
