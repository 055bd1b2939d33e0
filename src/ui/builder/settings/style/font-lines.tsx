'use client';

import { useEffect, useRef, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import { type Font, fontFace } from '@/core/style/fonts.ts';
import { Issues } from '@/ui/primitives/issues.tsx';
import { ChooseFiles, DropPlace } from '../../media/drop-place.tsx';
import { sendFile } from '../../media/send-file.ts';
import { type StyleLines, withLook } from './style-lines.ts';

/** A font on its way to the server; null where none is. */
type Sending = { name: string; share: number; waits: boolean } | null;

/**
 * The site's own fonts: added from this machine, and chosen as the type of texts and headings. In
 * a site of own rules alone, they become rules of these.
 */
export function FontLines({
  spec,
  hasLook,
  readOnly,
  onChange,
}: StyleLines & { hasLook: boolean }) {
  const fonts = spec.look?.fonts ?? [];
  const { sending, issues, send, cancel } = useFontSending((font) =>
    onChange(hasLook ? withLook(spec, 'fonts', joined(fonts, font)) : withRule(spec, font)),
  );
  const without = (file: string): Font[] | undefined => {
    const rest = fonts.filter((font) => font.file !== file);
    return rest.length > 0 ? rest : undefined;
  };
  return (
    <section aria-label="Fonts">
      <h2>Fonts</h2>
      <DropPlace disabled={readOnly || sending !== null} onFiles={(files) => void send(files)}>
        <ul>
          {fonts.map((font) => (
            <li key={font.file} className="flex items-center gap-3 border-t border-rule py-1">
              <span className="min-w-0 flex-1 truncate">
                <span className="font-[550]">{font.name}</span>
                <span className="text-muted">{` · ${wordsOf(font)}`}</span>
              </span>
              <code className="max-w-52 truncate font-mono text-note">{font.file}</code>
              {!readOnly && (
                <button
                  type="button"
                  className="button-quiet"
                  aria-label={`Take away: ${font.name}, ${wordsOf(font)}`}
                  disabled={isLastInUse(font, spec)}
                  title={isLastInUse(font, spec) ? 'Choose another type first.' : undefined}
                  onClick={() => onChange(withLook(spec, 'fonts', without(font.file)))}
                >
                  Take away
                </button>
              )}
            </li>
          ))}
        </ul>
        {fonts.length === 0 && (
          <p className="border-t border-rule py-2 text-muted">
            {hasLook
              ? 'None of the site’s own: type is what visitors’ machines have.'
              : 'Own rules name them; one that is added here stands in them as @font-face.'}
          </p>
        )}
        {!readOnly &&
          (sending ? (
            <p role="status" className="flex items-center gap-3">
              <progress className="w-40" value={sending.share} />
              {sending.waits ? 'Waiting for the server …' : `Sending ${sending.name} …`}
              <button type="button" className="button-quiet" onClick={cancel}>
                Cancel
              </button>
            </p>
          ) : (
            <ChooseFiles
              label="Add fonts …"
              accept=".woff2,font/woff2"
              onFiles={(files) => void send(files)}
            />
          ))}
        <Issues issues={issues} title="Not added" />
      </DropPlace>
    </section>
  );
}

/** Sends fonts, one after the other, and hands on each that the server has taken. */
function useFontSending(onFont: (font: Font) => void) {
  const [sending, setSending] = useState<Sending>(null);
  const [issues, setIssues] = useState<Issue[]>([]);
  const stop = useRef<AbortController | null>(null);
  const latest = useRef(onFont);
  useEffect(() => {
    latest.current = onFont;
  }, [onFont]);
  const send = async (files: File[]): Promise<void> => {
    stop.current = new AbortController();
    const { signal } = stop.current;
    setIssues([]);
    for (const file of files) {
      const { name, size } = file;
      setSending({ name, share: 0, waits: false });
      const tell = (received: number, waits: boolean): void =>
        setSending({ name, share: received / Math.max(1, size), waits });
      const upload = { id: null };
      try {
        const sent = await sendFile<Font>(file, { tell, signal, upload, kept: { as: 'font' } });
        if (sent.ok) latest.current(sent.value);
        else setIssues((before) => [...before, ...sent.issues]);
      } catch {
        break; // cancelled
      }
    }
    setSending(null);
  };
  return { sending, issues, send, cancel: () => stop.current?.abort() };
}

/** Fonts with one more; the same file stands there once. */
function joined(fonts: readonly Font[], font: Font): Font[] {
  return [...fonts.filter(({ file }) => file !== font.file), font];
}

function withRule({ css, ...spec }: StyleLines['spec'], font: Font): StyleLines['spec'] {
  const rule = fontFace(font);
  return { ...spec, css: css.includes(rule) ? css : `${rule}\n${css}` };
}

function wordsOf({ weight, slant }: Font): string {
  const range = Array.isArray(weight) ? `weights ${weight[0]} to ${weight[1]}` : `weight ${weight}`;
  return slant === 'italic' ? `${range}, italic` : range;
}

/** Whether type is chosen that this file alone gives. */
function isLastInUse({ name, file }: Font, { look }: StyleLines['spec']): boolean {
  const isChosen = look?.textFace === name || look?.headingFace === name;
  return isChosen && !look.fonts?.some((other) => other.name === name && other.file !== file);
}
