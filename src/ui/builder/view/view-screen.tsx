'use client';

import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { ViewedPage } from '@/server/queries/view-page.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { AskRetire } from '../entry/ask-retire.tsx';
import { entryHref, instantWords } from '../format.ts';
import { PageFrame, WIDTHS, WidthChoice } from '../page-frame.tsx';
import { useSpace } from '../preview-frame.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { useEditedPage } from './use-edited-page.ts';
import { viewHref } from './view-href.ts';

const SEEN = {
  published: 'as published',
  draft: 'with my draft',
  bench: 'with the whole bench',
} as const;

/** The public page at a path as of the clock, edited as it stands. */
export function ViewScreen({ page, clock }: { page: ViewedPage; clock: Clock }) {
  const { box, space } = useSpace();
  const [width, setWidth] = useState<number>(WIDTHS[0]!.width);
  const edited = useEditedPage(clock, page.language);
  const { said, issues, retiring } = edited;
  const scale = Math.min(1, space.width / width);
  return (
    <main className="flex min-h-0 flex-1 flex-col bg-white" data-area tabIndex={-1}>
      <h1 className="sr-only">{`Page at ${page.path}`}</h1>
      <div className="flex shrink-0 flex-wrap items-center gap-x-4 border-b border-rule bg-paper px-6 py-1.5">
        <PathForm key={page.path} path={page.path} />
        <Lead {...{ page, clock }} />
        <WidthChoice width={width} onChange={setWidth} />
      </div>
      {(said !== null || issues.length > 0 || clock.problem !== null) && (
        <div className="shrink-0 border-b border-rule bg-paper px-6 py-2">
          {clock.problem !== null && <p className="text-amber-text">{clock.problem}</p>}
          <SaidLine said={said} />
          <Issues issues={issues} title="Not done" answers />
        </div>
      )}
      {page.location !== null && (
        <p className="shrink-0 px-6 py-4">
          {`Seen ${SEEN[clock.seeing]}, this address leads to `}
          <ClockLink href={viewHref(page.location)} className="underline">
            {page.location}
          </ClockLink>
          .
        </p>
      )}
      <div ref={box} className="min-h-0 flex-1 overflow-hidden bg-rule">
        <div
          className="mx-auto h-full"
          style={{ width: width * scale }}
          hidden={page.location !== null}
        >
          <PageFrame
            html={page.html}
            {...(page.css === null ? {} : { css: page.css })}
            title={`Page at ${page.path}`}
            at={clock.at}
            height={space.height}
            editing={edited.editing}
            onPath={edited.follow}
            {...{ width, scale }}
          />
        </div>
      </div>
      {retiring && (
        <AskRetire
          what="retire"
          detail={retiring}
          clock={clock}
          onClose={edited.leave}
          onDo={edited.retire}
        />
      )}
    </main>
  );
}

/** What stands at the path, and where it is made. */
function Lead({ page, clock }: { page: ViewedPage; clock: Clock }) {
  const { entry, listing, status, automatic, language } = page;
  const spoken = language === null ? '' : `?language=${language}`;
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  const answers = status === 200 ? '' : `answers ${status} · `;
  const past = clock.tense === 'past' ? ' · the past is only looked at' : '';
  return (
    <p className="min-w-0 flex-1 truncate text-muted">
      {`${answers}${when} · ${SEEN[clock.seeing]}${automatic ? ' · automatic page' : ''}${past}`}
      {entry && <Way href={entryHref(entry.id, language)}>{`Entry “${entry.name}”`}</Way>}
      {listing && (
        <Way href={`/build/listings/${listing.key}${spoken}`}>{`Listing “${listing.label}”`}</Way>
      )}
      <Way href={`/build/addresses?try=${encodeURIComponent(page.path)}`}>Why it is this</Way>
    </p>
  );
}

function Way({ href, children }: { href: string; children: ReactNode }) {
  return (
    <>
      {' · '}
      <ClockLink href={href} className="underline">
        {children}
      </ClockLink>
    </>
  );
}

/** Where on the site one is; another path can be written. */
function PathForm({ path }: { path: string }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  const [written, setWritten] = useState(path);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        router.push(keep(viewHref(written)));
      }}
    >
      <input
        aria-label="Path of the page"
        className="control !w-72"
        value={written}
        onChange={(e) => setWritten(e.target.value)}
      />
    </form>
  );
}
