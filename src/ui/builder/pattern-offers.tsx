'use client';

import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from 'react';
import type { Completed } from '@/server/queries/completions.ts';
import { usePatternWorld } from './pattern-world.tsx';
import { ask } from './send.ts';

const PAUSE_MS = 60;

/** Offers for the word at the caret of a pattern, one of which is at hand. */
export interface PatternOffers {
  shown: Completed | null;
  active: number;
  /** Asks what can stand at the caret. */
  look: (text: string, caret: number) => void;
  leave: () => void;
  /** Whether a key was about the offers. */
  onKey: (event: KeyboardEvent<HTMLInputElement>) => boolean;
  take: (index: number) => void;
}

/** Completes a pattern while it is written, where the screen says what it is read from. */
export function usePatternOffers(
  field: RefObject<HTMLInputElement | null>,
  {
    isAddress,
    isExpression,
    onChange,
  }: { isAddress: boolean; isExpression: boolean; onChange: (value: string) => void },
): PatternOffers {
  const world = usePatternWorld();
  const [shown, setShown] = useState<Completed | null>(null);
  const [active, setActive] = useState(0);
  const asked = useRef<{ timer?: ReturnType<typeof setTimeout>; stop?: AbortController }>({});
  const leave = (): void => {
    clearTimeout(asked.current.timer);
    asked.current.stop?.abort();
    setShown(null);
  };
  useEffect(() => () => void clearTimeout(asked.current.timer), []);
  const look = (words: string, at: number): void => {
    leave();
    const [text, caret] = isExpression ? [`{${words}`, at + 1] : [words, at];
    if (!world || !text.slice(0, caret).includes('{')) return;
    const stop = new AbortController();
    const find = (): void =>
      void ask<Completed>('complete', { ...world, text, caret, isAddress }, stop.signal)
        .then((found) => {
          if (stop.signal.aborted || !('value' in found)) return;
          setActive(0);
          setShown(found.value.offers.length > 0 ? found.value : null);
        })
        .catch(() => undefined); // asked again with what was written since
    asked.current = { stop, timer: setTimeout(find, PAUSE_MS) };
  };
  const take = (index: number): void => {
    const input = field.current;
    const offer = shown?.offers[index];
    if (!input || !shown || !offer) return;
    const [from, to] = isExpression ? [shown.from - 1, shown.to - 1] : [shown.from, shown.to];
    const next = input.value.slice(0, from) + offer.insert + input.value.slice(to);
    const caret = from + offer.insert.length;
    onChange(next);
    leave();
    requestAnimationFrame(() => {
      input.focus();
      input.setSelectionRange(caret, caret);
    });
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>): boolean => {
    const { key } = event;
    if (key === ' ' && event.ctrlKey) {
      event.preventDefault();
      look(event.currentTarget.value, event.currentTarget.selectionStart ?? 0);
      return true;
    }
    if (!shown || !KEYS.includes(key)) return false;
    event.preventDefault();
    event.stopPropagation();
    const { length } = shown.offers;
    if (key === 'ArrowDown') setActive((active + 1) % length);
    else if (key === 'ArrowUp') setActive((active + length - 1) % length);
    else if (key === 'Enter') take(active);
    else leave();
    return true;
  };
  return { shown, active, look, leave, onKey, take };
}

const KEYS = ['ArrowDown', 'ArrowUp', 'Enter', 'Escape'];

/** The offers, below the pattern: name, what it gives, and what that is for the specimen. */
export function OfferList({
  id,
  offers: { shown, active, take },
}: {
  id: string;
  offers: PatternOffers;
}) {
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => void list.current?.scrollIntoView({ block: 'nearest' }), [shown]);
  useEffect(() => {
    list.current?.children[active]?.scrollIntoView({ block: 'nearest' });
  }, [active]);
  if (!shown) return null;
  return (
    <ul ref={list} id={id} role="listbox" aria-label="What can stand here" className="offer-list">
      {shown.offers.map((offer, i) => (
        <li
          key={offer.insert}
          id={`${id}-${i}`}
          role="option"
          aria-selected={i === active}
          className="offer"
          onMouseDown={(e) => {
            e.preventDefault(); // the pattern keeps the focus
            take(i);
          }}
        >
          <code className="font-mono">{offer.insert}</code>
          <span className="truncate text-muted">{wordsOf(offer)}</span>
          <span className="truncate text-right">{offer.value ?? ''}</span>
        </li>
      ))}
    </ul>
  );
}

function wordsOf({ label, gives, insert }: Completed['offers'][number]): string {
  const isSame = label === '' || label.toLowerCase() === insert.toLowerCase();
  return isSame ? gives : `${label}, ${gives}`;
}
