'use client';

import { usePathname, useRouter } from 'next/navigation';
import { type ReactNode, useEffect, useMemo } from 'react';
import type { Deed } from '@/server/permit.ts';
import type { ChangeTick, FurtherLanguage } from '@/server/queries/clock.ts';
import { SiteLanguages } from '../site-languages.ts';
import { RightsProvider } from '../rights.tsx';
import { ClockLink } from './clock-link.tsx';
import { ClockStrip } from './clock-strip.tsx';
import { useNow } from './use-now.ts';

const SECTIONS = [
  ['Today', '/build'],
  ['Content', '/build/content'],
  ['Types', '/build/types'],
  ['Templates', '/build/templates'],
  ['Listings', '/build/listings'],
  ['Addresses', '/build/addresses'],
  ['Media', '/build/media'],
  ['Settings', '/build/settings'],
] as const;

interface Props {
  siteName: string;
  zone: string;
  ownLanguage: string;
  further: FurtherLanguage[];
  person: string;
  rights: readonly Deed[];
  now: number;
  unpublished: number;
  ticks: ChangeTick[];
  children: ReactNode;
}

/** What surrounds every screen: header, clock strip, work area. */
export function Shell({
  siteName,
  zone,
  ownLanguage,
  further,
  person,
  rights,
  now: served,
  unpublished,
  ticks,
  children,
}: Props) {
  useAreaKey();
  const instants = useMemo(() => ticks.map((t) => t.at), [ticks]);
  const now = useNow(served, instants);
  return (
    <div className="flex h-screen min-h-0 flex-col overflow-hidden">
      <header data-area tabIndex={-1} className="shell-header">
        <span className="max-w-64 shrink-0 truncate font-semibold" title={siteName}>
          {siteName}
        </span>
        <Sections />
        <div className="ml-auto flex shrink-0 items-center gap-4">
          <BenchLink unpublished={unpublished} />
          <ClockLink href="/build/view" className="text-muted">
            On the page
          </ClockLink>
          <a href="/" target="_blank" rel="noreferrer" className="text-muted">
            Public site
          </a>
          <span className="wide-only text-muted">{person}</span>
          <SignOut />
        </div>
      </header>
      <ClockStrip {...{ zone, now, ticks, ownLanguage, further }} />
      <RightsProvider rights={rights}>
        <SiteLanguages value={{ ownLanguage, further }}>
          <div className="flex min-h-0 flex-1 flex-col">{children}</div>
        </SiteLanguages>
      </RightsProvider>
    </div>
  );
}

function BenchLink({ unpublished }: { unpublished: number }) {
  const current = usePathname() === '/build/bench';
  return (
    <ClockLink href="/build/bench" current={current} className="button inline-flex items-center">
      {`Bench: ${unpublished.toLocaleString('en')} unpublished`}
    </ClockLink>
  );
}

function Sections() {
  const path = usePathname();
  return (
    <nav aria-label="Sections" className="shell-sections">
      {SECTIONS.map(([label, href]) => {
        const current = href === '/build' ? path === href : path.startsWith(href);
        return (
          <ClockLink
            key={href}
            href={href}
            current={current}
            className={`flex h-12 items-center border-b-2 ${current ? 'border-spruce font-semibold text-ink' : 'border-transparent text-muted hover:text-ink'}`}
          >
            {label}
          </ClockLink>
        );
      })}
    </nav>
  );
}

function SignOut() {
  const router = useRouter();
  const signOut = async (): Promise<void> => {
    await fetch('/api/session', { method: 'DELETE' }).catch(() => undefined);
    router.push('/build/sign-in');
  };
  return (
    <button type="button" className="button-quiet h-8 rounded-md" onClick={() => void signOut()}>
      Sign out
    </button>
  );
}

/** F6 goes round header, clock, settings and outcome. */
function useAreaKey(): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.key !== 'F6') return;
      event.preventDefault();
      const areas = [...document.querySelectorAll<HTMLElement>('[data-area]')];
      const here = areas.findIndex((area) => area.contains(document.activeElement));
      areas.at((here + (event.shiftKey ? -1 : 1)) % areas.length)?.focus();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}
