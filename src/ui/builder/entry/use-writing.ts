'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Heard } from '@/server/process/note-writing.ts';

/** How often a screen says that it is open, and asks how things stand, ms. */
const EVERY_MS = 5000;
/** Words are kept on the server when nothing was typed for so long, ms. */
const PAUSE_MS = 1500;

/** What is written on. */
export interface WrittenOn {
  entry: string | null;
  /** Key of the type. */
  type: string;
  /** The further language that is written in; null for the site's own. */
  language: string | null;
  /** The version that is shown; null for a new entry. */
  revision: number | null;
}

/** What the server says of an entry that somebody has open. */
export interface Writing {
  others: Heard['others'];
  /** Whether all that is unsaved is kept on the server. */
  isKept: boolean;
  /** Words of an earlier visit, on whatever machine; null where none are kept. */
  copy: Heard['copy'];
  /** Throws the kept words away. */
  forget: () => void;
}

/**
 * Keeps unsaved words on the server, tells who else has the entry open, and draws the screen anew
 * when somebody saves or publishes.
 */
export function useWriting(on: WrittenOn, unsaved: Record<string, unknown> | null): Writing {
  const router = useRouter();
  const [others, setOthers] = useState<Heard['others']>([]);
  const [copy, setCopy] = useState<Heard['copy']>(null);
  const [kept, setKept] = useState<Record<string, unknown> | null>(null);
  const { entry, type, language, revision } = on;
  const send = useSend(entry, type, language);
  const seen = useRef<{ revision: number | null; public: number } | null>(null);
  const say = useCallback(
    async (more: object): Promise<Heard | null> => {
      const heard = await send(more);
      if (!heard) return null;
      setOthers(heard.others);
      const before = seen.current;
      seen.current = { revision: heard.revision, public: heard.public };
      const isOther = entry !== null && heard.revision !== revision;
      if (before && (isOther || heard.public !== before.public)) router.refresh();
      return heard;
    },
    [send, entry, revision, router],
  );
  const writing = unsaved !== null;
  useEffect(() => {
    const timer = setInterval(() => void say({ writing }), EVERY_MS);
    return () => clearInterval(timer);
  }, [say, writing]);
  useEffect(() => {
    void send({ writing: false, asks: true }).then((heard) => heard && setCopy(heard.copy));
    return () => void send({ writing: false, leaves: true });
  }, [send]);
  useEffect(() => {
    if (unsaved === null) return;
    const timer = setTimeout(() => {
      void say({ writing: true, keep: { revision, edits: unsaved } }).then(
        (heard) => heard && setKept(unsaved),
      );
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [say, unsaved, revision]);
  return {
    others,
    copy,
    isKept: unsaved === null || kept === unsaved,
    forget: () => {
      setCopy(null);
      void send({ writing: false, keep: null });
    },
  };
}

/** Says something of an entry in the name of this window; null where nobody answers. */
function useSend(
  entry: string | null,
  type: string,
  language: string | null,
): (more: object) => Promise<Heard | null> {
  const [window] = useState(() => Math.random().toString(36).slice(2));
  return useCallback(
    async (more) => {
      try {
        const response = await fetch('/api/writing', {
          method: 'POST',
          keepalive: 'leaves' in more,
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ entry, type, language, window, ...more }),
        });
        return response.ok ? ((await response.json()) as Heard) : null;
      } catch {
        return null; // the words are kept in this browser as well
      }
    },
    [entry, type, language, window],
  );
}
