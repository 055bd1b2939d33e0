declare module 'zip-stream' {
  import type { Transform } from 'node:stream';

  /** Writes a ZIP archive (with ZIP64 where it needs it), one entry after the other. */
  export default class ZipStream extends Transform {
    constructor(options?: { level?: number });
    entry(
      source: Buffer | string | NodeJS.ReadableStream,
      data: { name: string; date?: Date; store?: boolean },
      done: (error?: Error | null) => void,
    ): this;
    finish(): void;
  }
}
