import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import type { ReadSet } from '@/core/forecast/read-set.ts';
import type { RenderedPage } from '@/core/site/render.ts';
import { type Instant, earlier } from '@/core/time/interval.ts';
import { publicHeaders } from './etag.ts';

/** Content codings we answer in, best first. */
export type Coding = 'br' | 'gzip' | 'identity';

/** A page in one coding, ready to be sent. */
export interface Encoded {
  body: Buffer;
  etag: string;
  /** As `writeHead` takes them fastest: names and values in turn. */
  headers: string[];
  /** The same for 304. */
  headersUnchanged: string[];
}

/** Since when a design holds, where that is known, and until when; null for good. */
export interface DesignHolds {
  since: Instant | null;
  until: Instant | null;
}

/** A page kept for further visitors. */
export class CachedPage {
  private readonly encoded = new Map<Coding, Encoded>();

  constructor(
    readonly page: RenderedPage,
    /** What it was made from; null where that is not known, and any change may change it. */
    readonly reads: ReadSet | null,
    /** Instant it was rendered for, ms UTC. */
    readonly at: Instant,
    readonly headers = publicHeaders(page),
    private readonly bodies = new Map<Coding, Buffer>(),
  ) {}

  /** The same page, drawn with a design that was released and ends at some instants. */
  drawnWith({ since, until }: DesignHolds): CachedPage {
    const changed = Math.max(this.page.changed ?? -Infinity, since ?? -Infinity);
    const page = { ...this.page, validUntil: earlier(this.page.validUntil, until) };
    if (page.changed === null || changed === page.changed)
      return new CachedPage(page, this.reads, this.at, this.headers, this.bodies);
    const headers = { ...this.headers };
    if (headers['last-modified']) headers['last-modified'] = new Date(changed).toUTCString();
    return new CachedPage({ ...page, changed }, this.reads, this.at, headers, this.bodies);
  }

  /** Whether it holds as of an instant, where nothing was written since. */
  holdsAt(now: Instant): boolean {
    const { validUntil } = this.page;
    return now >= this.at && (validUntil === null || now < validUntil);
  }

  /** The page in a coding, compressed when first asked for. */
  in(coding: Coding): Encoded {
    let found = this.encoded.get(coding);
    if (!found) this.encoded.set(coding, (found = this.encode(coding)));
    return found;
  }

  private encode(coding: Coding): Encoded {
    const body = this.bodies.get(coding) ?? compressed(Buffer.from(this.page.body), coding);
    this.bodies.set(coding, body);
    const etag =
      coding === 'identity' ? this.headers.etag! : this.headers.etag!.replace(/"$/, `-${coding}"`);
    const unchanged = Object.entries({ ...this.headers, etag }).flat();
    const headers = [
      ...unchanged,
      'content-length',
      String(body.length),
      ...(coding === 'identity' ? [] : ['content-encoding', coding]),
    ];
    const headersUnchanged = pairs(unchanged).filter(([name]) => ON_304.has(name));
    return { body, etag, headers, headersUnchanged: headersUnchanged.flat() };
  }
}

/** What a 304 repeats of the answer it stands for (RFC 9110 §15.4.5), and what guards it. */
const ON_304 = new Set([
  'etag',
  'cache-control',
  'content-language',
  'vary',
  'last-modified',
  'content-security-policy',
  'x-content-type-options',
  'referrer-policy',
]);

/** Bytes in a coding. */
export function compressed(plain: Buffer, coding: Coding): Buffer {
  if (coding === 'identity') return plain;
  if (coding === 'gzip') return gzipSync(plain);
  const { BROTLI_PARAM_QUALITY, BROTLI_PARAM_SIZE_HINT } = constants;
  const params = { [BROTLI_PARAM_QUALITY]: 5, [BROTLI_PARAM_SIZE_HINT]: plain.length };
  return brotliCompressSync(plain, { params });
}

function pairs(list: string[]): [string, string][] {
  return Array.from({ length: list.length / 2 }, (_, i) => [list[2 * i]!, list[2 * i + 1]!]);
}
