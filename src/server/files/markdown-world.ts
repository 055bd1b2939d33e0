import type { PhrasingContent } from 'mdast';

/** Something of a text that is not as it was written, with its line, from 1. */
export interface MarkdownFinding {
  line: number;
  words: string;
}

/** What reading Markdown may ask, and whom it tells. */
export interface MarkdownWorld {
  /** Whether there is such a picture; where nobody says, all that lie in the site are taken. */
  hasPicture?: (id: string) => boolean;
  /** The name of a medium that an address leads to from where the text comes; null where none is. */
  findPicture?: (url: string) => string | null;
  /** What an address leads to from where the text comes: the id of an entry; null for others. */
  findEntry?: (url: string) => string | null;
  tell?: (finding: MarkdownFinding) => void;
  /** Whether it is of another tool: HTML stands for what it means, bare addresses are links. */
  isForeign?: boolean;
}

/** A text that is too much for a reader of Markdown. */
export class TooMuch extends Error {
  constructor(readonly finding: MarkdownFinding) {
    super(finding.words);
  }
}

/** The words of a line, marks left out. */
export function wordsOf(nodes: readonly PhrasingContent[]): string {
  return nodes
    .map((node) =>
      'value' in node ? node.value : 'children' in node ? wordsOf(node.children) : '',
    )
    .join('');
}

/** The entry that an address `entry:ID` names; null for others. */
export function entryOf(url: string): string | null {
  if (!url.startsWith('entry:') || url.length === 6) return null;
  try {
    return decodeURIComponent(url.slice(6));
  } catch {
    return null;
  }
}
