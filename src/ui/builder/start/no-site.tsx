'use client';

import { useEffect, useState } from 'react';
import { Issues } from '@/ui/primitives/issues.tsx';
import { Line } from '@/ui/primitives/line.tsx';
import { command, openDemo } from '../send.ts';
import { useAttempts } from '../use-attempts.ts';
import { LoadFolder } from './load-folder.tsx';

const FIELDS = [
  ['name', 'Name', 'As visitors read it; it can be changed later, as all of this can.'],
  ['url', 'Address', 'Scheme and host under which visitors will find the site.'],
  ['zone', 'Time zone', 'Such as Europe/Dublin: what “today” is, and every time shown.'],
  ['language', 'Language', 'A language tag, such as en or de.'],
] as const;

type Given = Record<(typeof FIELDS)[number][0], string>;

/** What every screen shows while there is no site: how to begin one. */
export function NoSite() {
  const { busy, issues, attempt } = useAttempts();
  const [given, setGiven] = useState<Given>({ name: '', url: '', zone: '', language: 'en' });
  // What the browser knows of where one is; it is not known while the page is made.
  useEffect(() => {
    const { timeZone: zone, locale } = Intl.DateTimeFormat().resolvedOptions();
    const { origin: url } = window.location;
    const language = locale.split('-')[0]!;
    const frame = requestAnimationFrame(() => setGiven((g) => ({ ...g, url, zone, language })));
    return () => cancelAnimationFrame(frame);
  }, []);
  const start = (): Promise<boolean> =>
    attempt(
      () => command('startSite', given),
      () => ({ words: '' }),
    );
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-5">
      <div className="max-w-[720px]">
        <h1>No site yet</h1>
        <p className="mt-1 text-muted">
          Say what it is called and where it is. Then describe what it holds, a line for each kind
          of content.
        </p>
        <form
          className="mt-3"
          onSubmit={(event) => {
            event.preventDefault();
            void start();
          }}
        >
          <Issues issues={issues} title="Not started" />
          {FIELDS.map(([key, label, help]) => (
            <Line key={key} label={label} htmlFor={`start-${key}`} help={help}>
              <input
                id={`start-${key}`}
                className="control"
                required
                value={given[key]}
                onChange={(e) => setGiven({ ...given, [key]: e.target.value })}
              />
            </Line>
          ))}
          <button type="submit" className="button button-main mt-2" disabled={busy}>
            Start this site
          </button>
        </form>
        <h2 className="mt-6">Or bring one along</h2>
        <p className="mt-1 text-muted">
          The demo is a seed library: varieties, growers and swap days, with pages, lists and plans.
        </p>
        <button
          type="button"
          className="button mt-2"
          disabled={busy}
          onClick={() =>
            void attempt(openDemo, ({ entries }) => ({ words: `${entries} entries.` }))
          }
        >
          {busy ? 'A moment …' : 'Open the demo'}
        </button>
        <p className="mt-4 text-muted">
          A folder of your own, as it is saved from here or written by hand: you are told what it
          would do before anything is done.
        </p>
        <LoadFolder />
      </div>
    </main>
  );
}
