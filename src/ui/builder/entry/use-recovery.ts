'use client';

import { useEffect, useState } from 'react';
import type { Writing } from './use-writing.ts';

/** Unsaved words of an earlier visit, by field id. */
export interface KeptEdits {
  /** When they were written, ms UTC. */
  at: number;
  /** The version they were written on; null for a new entry. */
  revision: number | null;
  edits: Record<string, unknown>;
}

/** What is kept, and what can be done with it. */
export interface Recovery {
  /** Words of an earlier visit; null where there are none, or others are being written. */
  found: KeptEdits | null;
  forget: () => void;
  taken: () => void;
}

const PAUSE_MS = 500;

/**
 * Keeps unsaved words in this browser, and offers those of an earlier visit: those that the server
 * keeps where they are newer. Never published, never a version.
 */
export function useRecovery(
  name: string,
  revision: number | null,
  unsaved: Record<string, unknown> | null,
  server: Pick<Writing, 'copy' | 'forget'>,
): Recovery {
  const key = `bontel.unsaved-words.${name}`;
  const [found, setFound] = useState<KeptEdits | null>(null);
  useEffect(() => {
    try {
      setFound(JSON.parse(localStorage.getItem(key) ?? 'null') as KeptEdits | null);
    } catch {
      localStorage.removeItem(key);
    }
  }, [key]);
  useEffect(() => {
    if (unsaved === null) return;
    const kept: KeptEdits = { at: Date.now(), revision, edits: unsaved };
    const timer = setTimeout(() => {
      try {
        localStorage.setItem(key, JSON.stringify(kept));
      } catch {
        // the browser's store is full: the words are still in the form
      }
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [key, unsaved, revision]);
  const [isTaken, setTaken] = useState(false);
  const { copy } = server;
  const newest = copy && (!found || copy.at > found.at) ? copy : found;
  return {
    found: unsaved === null && !isTaken ? newest : null,
    taken: () => setTaken(true),
    forget: () => {
      localStorage.removeItem(key);
      setFound(null);
      server.forget();
    },
  };
}
