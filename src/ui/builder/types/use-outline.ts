'use client';

import { useCallback, useEffect, useMemo, useState } from 'react';
import { type OutlineType, readOutline } from '@/core/outline/read.ts';
import { outlineSteps } from '@/core/outline/steps.ts';
import type { TypesDetail } from '@/server/queries/types.ts';
import { type Steps, newId } from '../design-steps.ts';

/** An outline while it is written: as it is understood, and what it makes. */
export interface Outline {
  text: string;
  write: (text: string) => void;
  types: OutlineType[];
  /** None while something in it cannot be. */
  steps: Steps;
}

/** Reads an outline as it is typed. */
export function useOutline({ world, taken }: TypesDetail): Outline {
  const { text, write } = useKeptText();
  const types = useMemo(() => readOutline(text, world), [text, world]);
  const isWrong = types.some(({ findings, fields }) =>
    [...findings, ...fields.flatMap((f) => f.findings)].some((f) => f.isWrong),
  );
  const steps = useMemo(() => {
    const used = new Set([...taken, ...[...world.types, ...world.subjectSets].map((p) => p.id)]);
    // A field of a type that is there might have had the name before, with values under it.
    const idFor = (path: string, key: string): string =>
      used.has(key) || path.includes('/fields/') ? newId() : key;
    return isWrong ? [] : outlineSteps(types, world, idFor);
  }, [types, isWrong, world, taken]);
  return { text, write, types, steps };
}

const KEPT = 'bontel outline';

/** A text that is there again when one comes back to the screen, in this tab. */
function useKeptText(): Pick<Outline, 'text' | 'write'> {
  const [text, setText] = useState('');
  useEffect(() => {
    const frame = requestAnimationFrame(() =>
      setText((now) => (now === '' ? (sessionStorage.getItem(KEPT) ?? '') : now)),
    );
    return () => cancelAnimationFrame(frame);
  }, []);
  const write = useCallback((next: string) => {
    setText(next);
    sessionStorage.setItem(KEPT, next);
  }, []);
  return { text, write };
}
