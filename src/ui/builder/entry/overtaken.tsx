'use client';

import { useState } from 'react';
import { rowPieces, wordPieces } from '@/core/content/pieces.ts';
import { isDocument, plainText, textLines } from '@/core/rich-text/index.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import type { FormField } from '@/server/queries/form-field.ts';
import { Marked, Rows } from './change-lines.tsx';

interface Props {
  detail: EntryDetail;
  /** What the words were written on. */
  begun: { values: Record<string, unknown>; revision: number | null };
  edits: Record<string, unknown>;
  /** Keeps these words on top of the newest version. */
  onSettle: (edits: Record<string, unknown>) => void;
}

/** Somebody saved a newer version meanwhile: theirs and mine, field by field. */
export function Overtaken({ detail, begun, edits, onSettle }: Props) {
  const [mine, setMine] = useState<Record<string, boolean>>({});
  const fields = detail.type.fields.filter((f) => f.id in edits);
  const clashing = fields.filter((f) => differ(begun.values[f.id], detail.values[f.id]));
  const keeps = (id: string): boolean => mine[id] ?? true;
  const kept = Object.fromEntries(Object.entries(edits).filter(([id]) => keeps(id)));
  return (
    <section
      aria-label="A newer version"
      role="alert"
      className="border-l-[3px] border-amber-mark bg-white px-3 py-2"
    >
      <p className="font-semibold">
        {`${detail.author || 'Somebody'} saved version ${detail.revision} while you were writing on version ${begun.revision}.`}
      </p>
      {clashing.length === 0 ? (
        <p>What you changed, nobody else did: both can stand.</p>
      ) : (
        <ul>
          {clashing.map((f) => (
            <li key={f.id} className="mt-2">
              <fieldset>
                <legend className="font-medium">{f.label}</legend>
                {[true, false].map((own) => (
                  <label key={String(own)} className="flex items-baseline gap-2">
                    <input
                      type="radio"
                      name={`mine-${f.id}`}
                      checked={keeps(f.id) === own}
                      onChange={() => setMine((before) => ({ ...before, [f.id]: own }))}
                    />
                    <span className="min-w-0 break-words">
                      <span className="text-muted">{own ? 'Yours: ' : 'Theirs: '}</span>
                      {shown(f, own ? edits[f.id] : detail.values[f.id])}
                    </span>
                  </label>
                ))}
                <Difference theirs={detail.values[f.id]} yours={edits[f.id]} />
              </fieldset>
            </li>
          ))}
        </ul>
      )}
      <button type="button" className="button mt-2" onClick={() => onSettle(kept)}>
        {`Go on writing on version ${detail.revision}`}
      </button>
    </section>
  );
}

/** What theirs and yours have otherwise, where that is more than a value: words marked, row by row. */
function Difference({ theirs, yours }: { theirs: unknown; yours: unknown }) {
  if (isDocument(theirs) && isDocument(yours))
    return <Rows pieces={rowPieces(textLines(theirs), textLines(yours))} />;
  if (typeof theirs !== 'string' || typeof yours !== 'string' || theirs.length < LONG) return null;
  return (
    <p>
      {wordPieces(theirs, yours).map((piece, i) => (
        <Marked key={i} piece={piece} />
      ))}
    </p>
  );
}

/** Shorter texts are seen at a glance. */
const LONG = 60;

function differ(a: unknown, b: unknown): boolean {
  return JSON.stringify(a ?? null) !== JSON.stringify(b ?? null);
}

const MOST = 300;

function shown(field: FormField, value: unknown): string {
  const one = (v: unknown): string => {
    if (typeof v === 'object' && v !== null) return plainText(v);
    const text = String(v);
    return field.options.find((o) => o.value === text)?.label ?? field.names[text] ?? text;
  };
  const text = [value ?? []].flat().map(one).join(', ');
  if (text === '') return '(blank)';
  return text.length > MOST ? `${text.slice(0, MOST)}…` : text;
}
