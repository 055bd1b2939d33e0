import { nearest } from '../did-you-mean.ts';
import type { FieldKind } from '../design/kinds/definition.ts';
import { FIELD_KINDS } from '../design/kinds/index.ts';

/** What was said of a field in brackets, as it was understood. */
export interface Said {
  kind: string | null;
  many: boolean;
  required: boolean;
  sitsWithin: boolean;
  /** Names of types that it leads to. */
  targets: string[];
  options: string[];
  /** What was not understood, with what may have been meant. */
  unknown: { words: string; near: string | undefined }[];
}

const SPOKEN = new Map(
  FIELD_KINDS.flatMap((kind) =>
    [kind.label.toLowerCase(), ...kind.spoken].map((words) => [words, kind.kind] as const),
  ),
);

/** Understands what stands in brackets after a field; `isType` tells names of types. */
export function understood(said: readonly string[], isType: (name: string) => boolean): Said {
  const all: Said = {
    kind: null,
    many: false,
    required: false,
    sitsWithin: false,
    targets: [],
    options: [],
    unknown: [],
  };
  for (const piece of said) understand(all, piece, isType);
  return all;
}

function understand(all: Said, piece: string, isType: (name: string) => boolean): void {
  const words = takeMarks(all, piece);
  if (words === '') return;
  const arrow = /^(?:→|->|=>|to\s)\s*(.*)$/.exec(words);
  if (arrow) return addTarget(all, takeMarks(all, arrow[1]!));
  const choice = /^(?:choice|one of)\s*:?\s+(.+)$/i.exec(words) ?? /^([^/]+\/.+)$/.exec(words);
  const kind = SPOKEN.get(words.toLowerCase().replace(/^groups$/, 'group'));
  if (/^groups$/i.test(words)) all.many = true;
  if (all.options.length > 0) all.options.push(words);
  else if (kind !== undefined) all.kind = kind;
  else if (choice) Object.assign(all, { kind: 'choice', options: optionsIn(choice[1]!) });
  else if (all.kind === 'choice') all.options.push(words);
  else if (isType(words)) addTarget(all, words);
  else all.unknown.push({ words, near: nearest(words, SPOKEN.keys()) });
}

const REQUIRED = /\b(required|must)\b/i;
const SEVERAL = /\b(several|many|any number of)\b/i;

/** What words say of a field besides its kind, as an outline has it. */
export function marksIn(words: string): string[] {
  return [
    ...(REQUIRED.test(words) ? ['required'] : []),
    ...(SEVERAL.test(words) ? ['several'] : []),
  ];
}

/** Notes "required", "several" and "within" and gives the rest of the words. */
function takeMarks(all: Said, piece: string): string {
  const rest = piece
    .replace(REQUIRED, () => ((all.required = true), ''))
    .replace(SEVERAL, () => ((all.many = true), ''))
    .replace(/\b(sits )?within\b/i, () => ((all.sitsWithin = true), ''));
  return rest.trim();
}

function addTarget(all: Said, name: string): void {
  all.kind = 'reference';
  all.targets.push(
    ...name
      .split(/\s+or\s+|\//)
      .map((one) => one.trim())
      .filter(Boolean),
  );
}

function optionsIn(words: string): string[] {
  return words
    .split('/')
    .map((option) => option.trim())
    .filter((option) => option !== '');
}

/** The kind that a field's name suggests; null where none does. */
export function suggested(name: string): FieldKind | null {
  const words = name.toLowerCase().split(/[\s_-]+/);
  const found = [name.toLowerCase(), words.at(-1)!, words[0]!].flatMap(
    (word) => FIELD_KINDS.find((kind) => kind.suggestedBy.includes(word)) ?? [],
  );
  if (found[0]) return found[0];
  const isQuestion = name.endsWith('?') || /^(is|has|can|was)\s/i.test(name);
  return isQuestion ? FIELD_KINDS.find(({ kind }) => kind === 'yesno')! : null;
}
