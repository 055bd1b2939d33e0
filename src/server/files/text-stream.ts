import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { type Readable, Transform } from 'node:stream';

const HEAD_BYTES = 65_536;
const DELIMITERS = [',', ';', '\t', '|'] as const;

/** A table's text as it is read, and what parts its cells. */
interface TableText {
  stream: Readable;
  delimiter: string;
  /** What is to be said of its encoding once it was read; null where nothing is. */
  tell: () => string | null;
}

/**
 * Text of a file in UTF-8 or UTF-16, by its byte-order mark; from the first byte on that is no UTF-8
 * as Windows-1252, the only other encoding that tables come in by habit.
 */
export async function textStream(path: string): Promise<TableText> {
  const head = await readHead(path);
  const utf16 = head[0] === 0xff && head[1] === 0xfe;
  const isUtf8 = utf16 || fits(head);
  let seen = isUtf8;
  let decoder = new TextDecoder(utf16 ? 'utf-16le' : isUtf8 ? 'utf-8' : 'windows-1252', {
    fatal: isUtf8 && !utf16,
  });
  const decode = (chunk: Buffer | undefined): string => {
    try {
      return decoder.decode(chunk, { stream: chunk !== undefined });
    } catch {
      seen = false;
      decoder = new TextDecoder('windows-1252');
      return decoder.decode(chunk, { stream: chunk !== undefined });
    }
  };
  const stream = createReadStream(path).pipe(
    new Transform({
      transform: (chunk: Buffer, _, done) => done(null, decode(chunk)),
      flush: (done) => done(null, decode(undefined)),
      encoding: 'utf8',
      decodeStrings: true,
    }),
  );
  const first = new TextDecoder(utf16 ? 'utf-16le' : 'utf-8').decode(head).split(/\r?\n/, 1)[0]!;
  return {
    stream,
    delimiter: delimiterOf(first),
    tell: () => (seen ? null : 'The table is not UTF-8; it was read as Windows-1252.'),
  };
}

async function readHead(path: string): Promise<Buffer> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

function fits(head: Buffer): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true });
    return true;
  } catch {
    return false;
  }
}

/** What parts the cells of a first line: what stands in it most, outside quotes. */
function delimiterOf(line: string): string {
  const bare = line.replace(/"(?:[^"]|"")*"/g, '');
  const count = (mark: string): number => bare.split(mark).length;
  return DELIMITERS.reduce((best, mark) => (count(mark) > count(best) ? mark : best));
}
