'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Place } from '@/core/template/places.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { WrittenText } from '@/server/queries/view-page.ts';
import { type BulkChanges, useBulkChanges } from '../content/use-bulk-changes.ts';
import { newHere } from '../content/new-here.ts';
import { entryHref } from '../format.ts';
import type { Editing, PlaceTold, TextPlace } from '../page-frame.tsx';
import { useMay } from '../rights.tsx';
import { ask, failure } from '../send.ts';
import { useClockParameters } from '../shell/use-clock.ts';
import { viewHref } from './view-href.ts';

/** An entry that is about to be taken off the site. */
type Retiring = { id: string; name: string };

/** A page that is edited as it stands, and what came of it. */
export interface EditedPage extends Pick<BulkChanges, 'said' | 'issues'> {
  editing: Editing;
  retiring: Retiring | null;
  leave: () => void;
  retire: () => void;
  /** Goes where a link or a form leads. */
  follow: (path: string) => void;
}

/**
 * Does what somebody asks for on a page that is edited as it stands; `language`: the id of the
 * further one that it is in.
 */
export function useEditedPage(clock: Clock, language: string | null): EditedPage {
  const router = useRouter();
  const { keep, set } = useClockParameters();
  const bulk = useBulkChanges();
  const mayWrite = useMay('write-entry');
  const [write, setWrite] = useState<(Editing['write'] & { text: WrittenText }) | null>(null);
  const [retiring, setRetiring] = useState<Retiring | null>(null);
  const go = (path: string): void => router.push(keep(path));

  /** Has a text written on as it was saved last, whoever saved it. */
  const begin = async (place: TextPlace): Promise<void> => {
    const { entry, field, language: spoken = null } = place;
    const asked = { at: clock.now, entry, field, language: spoken };
    const found = await ask<WrittenText>('written', asked);
    if ('value' in found) return setWrite({ place, text: found.value });
    const issue = { code: 'refused', message: found.problem, fix: 'Look at it anew.' };
    await bulk.attempt(
      () => Promise.resolve(failure(issue)),
      () => ({ words: '' }),
    );
  };
  const save = async ({ place, value }: { place: TextPlace; value: string }): Promise<void> => {
    const { name = '', label = '' } = write?.text ?? {};
    setWrite(null);
    const [entry, field] = [
      { id: place.entry, name },
      { id: place.field, label },
    ];
    const said = value === '' ? null : value;
    const isDone = await bulk.saveWord(place.language ?? null, entry, field, said);
    if (isDone && clock.seeing === 'published') set({ seeing: 'draft' });
  };
  const onTold = (told: PlaceTold): void => {
    if ('wrote' in told) return void save(told.wrote);
    const { deed, place } = told;
    if (deed === 'write' && place.of === 'text') return void begin(place);
    if (deed === 'retire' && place.of === 'entry' && language === null)
      return setRetiring({ id: place.entry, name: place.name });
    if (deed === 'pin' && place.of === 'entry') return go(pinning(place));
    go(whereTo(place, { adds: deed === 'add', language }));
  };
  return {
    said: bulk.said,
    issues: bulk.issues,
    retiring,
    leave: () => setRetiring(null),
    retire: () => retiring && void bulk.retire(retiring),
    follow: (path) => follow(path, go),
    editing: { isAllowed: mayWrite && clock.tense !== 'past', onTold, write },
  };
}

/** Goes where something leads: to that page of this site, else in a window of its own. */
function follow(href: string, go: (path: string) => void): void {
  if (href.startsWith('/') && !href.startsWith('//')) go(viewHref(href));
  else if (!href.startsWith('#')) window.open(href, '_blank', 'noopener,noreferrer');
}

/** The screen on which what stands at a place is edited, or another is made that stands there. */
function whereTo(
  place: Place,
  { adds, language }: { adds: boolean; language: string | null },
): string {
  switch (place.of) {
    case 'field':
      return `${entryHref(place.entry, place.language)}#field-${place.key}`;
    case 'text':
    case 'entry':
      return entryHref(place.entry, language);
    case 'picks':
      return `/build/listings/picks/${place.picks}${adds ? '#picks-add' : ''}`;
    case 'listing':
      return adds
        ? newHere(place.type, { ...place, here: `listing/${place.listing}` })
        : `/build/listings/${place.listing}`;
    case 'leading':
      return newHere(place.type, { here: `leading/${place.field}/${place.entry}` });
  }
}

/** The screen of a card's listing, on which it stands first: to be kept there. */
function pinning({ listing = '', entry, name }: Extract<Place, { of: 'entry' }>): string {
  const pin = new URLSearchParams({ pin: entry, called: name });
  return `/build/listings/${listing}?${pin.toString()}`;
}
