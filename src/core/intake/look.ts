import { OWN_KEYS, type SourceRecord, headingOf, valueAt } from './record.ts';
import { dayOrderOf, decimalsOf, plainDate, plainNumber, plainYesNo } from './plain-values.ts';

/** What is known of a key or column from the values that stand under it. */
export interface KeySeen {
  name: string;
  /** In how many records it says something. */
  count: number;
  /** The first few values, as text. */
  samples: string[];
  /** The kind of field that all of them would fit. */
  kind:
    'text' | 'paragraphs' | 'richtext' | 'number' | 'yesno' | 'date' | 'datetime' | 'tags' | 'link';
}

/** What was seen in records. */
export interface Seen {
  records: number;
  keys: KeySeen[];
  /** How days by numbers alone must be read; null where either would do, or there are none. */
  days: 'dmy' | 'mdy' | null;
  /** Whether there are days that could be read either way, and nothing says which. */
  isEitherDay: boolean;
  /** The sign that numbers have before their decimals; null where either would do. */
  decimals: 'point' | 'comma' | null;
  /** Whether there are numbers that could be read either way, and nothing says which. */
  isEitherNumber: boolean;
  /** Folders that hold records, with how many each, the one that was sent being "". */
  folders: { path: string; records: number }[];
}

const SAMPLES = 3;
const SAMPLE_CHARS = 120;
const MOST_KEYS = 300;
const MOST_FOLDERS = 200;
const TESTS = ['yesno', 'number', 'date', 'datetime', 'link', 'tags', 'text'] as const;

interface Tally {
  count: number;
  samples: string[];
  fits: Set<(typeof TESTS)[number]>;
}

/** Looks at records one by one and keeps a summary, however many there are. */
export class Look {
  private records = 0;
  private readonly keys = new Map<string, Tally>();
  private readonly folders = new Map<string, number>();
  private readonly orders = new Set<'dmy' | 'mdy' | 'either'>();
  private readonly decimals = new Set<'point' | 'comma' | 'either'>();

  /** Takes a record into account. */
  add(record: SourceRecord): void {
    this.records += 1;
    const folder = record.source.includes('/')
      ? record.source.slice(0, record.source.lastIndexOf('/'))
      : '';
    if (this.folders.has(folder) || this.folders.size < MOST_FOLDERS)
      this.folders.set(folder, (this.folders.get(folder) ?? 0) + 1);
    for (const [name, value] of Object.entries(record.values)) this.note(name, value);
    if (record.body) {
      this.note(OWN_KEYS.path, valueAt(record, OWN_KEYS.path));
      const { heading, rest } = headingOf(record.body.text);
      if (heading !== null) this.note(OWN_KEYS.heading, heading);
      if (rest.trim() !== '') this.note(OWN_KEYS.body, rest.trim());
    }
  }

  /** What was seen by now. */
  seen(): Seen {
    const days = onlyOf(this.orders);
    const decimals = onlyOf(this.decimals);
    return {
      records: this.records,
      days,
      isEitherDay: this.orders.size > 0 && days === null,
      decimals,
      isEitherNumber: this.decimals.has('either') && decimals === null,
      folders: [...this.folders]
        .map(([path, records]) => ({ path, records }))
        .sort((a, b) => (a.path < b.path ? -1 : 1)),
      keys: [...this.keys].map(([name, { count, samples, fits }]) => ({
        ...{ name, count, samples },
        kind: kindOf(name, fits),
      })),
    };
  }

  private note(name: string, value: unknown): void {
    if (value === null || value === undefined || value === '') return;
    let tally = this.keys.get(name);
    if (!tally) {
      if (this.keys.size >= MOST_KEYS) return;
      this.keys.set(name, (tally = { count: 0, samples: [], fits: new Set(TESTS) }));
    }
    tally.count += 1;
    const text = Array.isArray(value)
      ? value.join(', ')
      : typeof value === 'object' && !(value instanceof Date)
        ? JSON.stringify(value)
        : String(value);
    if (tally.samples.length < SAMPLES) tally.samples.push(text.slice(0, SAMPLE_CHARS));
    for (const test of tally.fits) if (!FITS[test](value, text)) tally.fits.delete(test);
    const order = dayOrderOf(text);
    if (order) this.orders.add(order);
    const decimals = typeof value === 'string' ? decimalsOf(text) : null;
    if (decimals) this.decimals.add(decimals);
  }
}

/** The one way that there is besides `either`; null where there is none, or there are more. */
function onlyOf<T extends string>(all: ReadonlySet<T>): Exclude<T, 'either'> | null {
  const [one, other] = [...all].filter((way) => way !== 'either');
  return one !== undefined && other === undefined ? (one as Exclude<T, 'either'>) : null;
}

const isDay = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text);

/** Whether a value could be one of a kind. */
const FITS: Record<(typeof TESTS)[number], (value: unknown, text: string) => boolean> = {
  yesno: (value) =>
    typeof value === 'boolean' ||
    (typeof value === 'string' && value.length > 1 && plainYesNo(value) !== null),
  number: (value) => plainNumber(value) !== null,
  date: (value) => isDay(plainDate(value) ?? plainDate(value, 'mdy') ?? ''),
  datetime: (value) => (plainDate(value) ?? plainDate(value, 'mdy')) !== null,
  link: (_, text) => /^https?:\/\/\S+$/.test(text),
  tags: (value) => Array.isArray(value) && value.every((one) => typeof one !== 'object'),
  text: (value, text) => typeof value !== 'object' && text.length <= 200 && !text.includes('\n'),
};

function kindOf(name: string, fits: ReadonlySet<(typeof TESTS)[number]>): KeySeen['kind'] {
  if (name === OWN_KEYS.body) return 'richtext';
  const found = TESTS.find((test) => fits.has(test));
  return found ?? 'paragraphs';
}
