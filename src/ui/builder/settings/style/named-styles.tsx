'use client';

import { useState } from 'react';
import { contrastOf } from '@/core/style/contrast.ts';
import type { Colours } from '@/core/style/look-spec.ts';
import { NAMED_PROPERTIES, STYLED, type StyledSort, readOn } from '@/core/style/named-look.ts';
import type { StyleDetail } from '@/server/queries/style.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { Attempts } from '../../use-attempts.ts';
import { AddLine } from '../add-line.tsx';
import { usePartList } from '../use-part-list.ts';

/** Least contrast of words and their ground (WCAG 2.2, 1.4.3). */
const ENOUGH = 4.5;

/** A named style as it is edited. */
export type NamedStyleSpec = StyleDetail['styles'][number];

interface Props {
  styles: readonly NamedStyleSpec[];
  /** The same without what is unsaved. */
  latest: readonly NamedStyleSpec[];
  /** The colours by day, and in the dark; null where the site's own rules say what they are. */
  colours: readonly [day: Colours, dark: Colours] | null;
  language: string;
  attempts: Pick<Attempts, 'attempt' | 'busy'>;
  readOnly: boolean;
  onChange: (style: NamedStyleSpec) => void;
  /** A style was opened. */
  onOpen: () => void;
}

/** The styles that texts and blocks can have by name, and what each looks like. */
export function NamedStyles(props: Props) {
  const { styles, language, attempts, readOnly } = props;
  const { busy } = attempts;
  const [open, setOpen] = useState<string | null>(null);
  const [on, setOn] = useState<StyledSort>('paragraph');
  const { add, remove } = usePartList(
    { list: 'styles', parts: props.latest, language, here: '/build/settings/style' },
    attempts,
  );
  return (
    <section aria-label="Named styles">
      <h2>Named styles</h2>
      <p className="mb-1 text-muted">
        Chosen by name in texts, and for blocks of templates. Own rules draw more of one as{' '}
        <code className="font-mono text-note">.style-</code> and its key.
      </p>
      <ul>
        {styles.map((style) => (
          <li key={style.id} className="border-t border-rule py-1">
            <div className="flex items-center gap-3">
              <button
                type="button"
                className="min-w-0 flex-1 truncate text-left font-[550] hover:underline"
                aria-expanded={open === style.id}
                onClick={() => {
                  setOpen(open === style.id ? null : style.id);
                  props.onOpen();
                }}
              >
                {style.label}
              </button>
              <span className="text-muted">{`of ${STYLED[style.on]}`}</span>
              <code className="max-w-32 truncate font-mono text-note">{style.key}</code>
              {!readOnly && (
                <button
                  type="button"
                  className="button-quiet"
                  aria-label={`Take away: ${style.label}`}
                  disabled={busy}
                  onClick={() => void remove(style.id)}
                >
                  Take away
                </button>
              )}
            </div>
            {open === style.id && <LookLines {...props} style={style} />}
          </li>
        ))}
      </ul>
      {styles.length === 0 && <p className="border-t border-rule py-2 text-muted">None so far.</p>}
      {!readOnly && (
        <AddLine
          label="Name of the new style"
          placeholder="New style, such as “Lead”"
          button="Add it"
          busy={busy}
          onAdd={(name) => add(name, { on })}
        >
          <select
            aria-label="What it is for"
            className="control !w-44"
            value={on}
            onChange={(e) => setOn(e.target.value as StyledSort)}
          >
            {Object.entries(STYLED).map(([value, label]) => (
              <option key={value} value={value}>{`of ${label}`}</option>
            ))}
          </select>
        </AddLine>
      )}
    </section>
  );
}

/** What one style looks like: a choice of each property that it can have. */
function LookLines({ style, colours, readOnly, onChange }: Props & { style: NamedStyleSpec }) {
  const { look = {} } = style;
  const put = (name: string, value: string): void => {
    const { [name as 'size']: _, ...rest } = look;
    const next = value === '' ? rest : { ...rest, [name]: value };
    const { look: __, ...whole } = style;
    onChange(Object.keys(next).length === 0 ? whole : { ...whole, look: next });
  };
  return (
    <div className="pb-2">
      {NAMED_PROPERTIES.filter(([, { on }]) => on.includes(style.on)).map(
        ([name, { label, options }]) => (
          <Line key={name} label={label} htmlFor={`named-${name}`}>
            <select
              id={`named-${name}`}
              className="control max-w-[320px]"
              disabled={readOnly}
              value={look[name] ?? ''}
              onChange={(e) => put(name, e.target.value)}
            >
              <option value="">As it is elsewhere</option>
              {Object.entries(options).map(([value, option]) => (
                <option key={value} value={value}>
                  {option.label}
                </option>
              ))}
            </select>
          </Line>
        ),
      )}
      {colours && <Faint {...{ style, colours }} />}
    </div>
  );
}

/** Where the words of a style can hardly be read on its ground. */
function Faint({
  style,
  colours,
}: {
  style: NamedStyleSpec;
  colours: readonly [day: Colours, dark: Colours];
}) {
  const faint = (['By day', 'In the dark'] as const).flatMap((when, i) => {
    const pair = style.on === 'picture' ? null : readOn(style, colours[i]!);
    const ratio = pair ? contrastOf(...pair) : ENOUGH;
    return ratio < ENOUGH ? [`${when} its words have ${ratio.toFixed(1)} : 1`] : [];
  });
  if (faint.length === 0) return null;
  return <p className="text-alarm">{`${faint.join('; ')}. Words need 4.5 : 1.`}</p>;
}
