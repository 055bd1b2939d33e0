import { container } from '@/server/process/container.ts';
import { denyLoading } from '@/server/process/deny-loading.ts';
import type { Piece } from '@/server/uploads/uploads.ts';

type Params = { params: Promise<{ id: string }> };

/**
 * Takes in pieces of files, as form data: the name of each part is `<offset> <path>`, where in
 * its file it goes (bytes) and where in the folder that lies; without a path it is a piece of a
 * ZIP archive.
 */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  const denied = await denyLoading(request);
  if (denied) return denied;
  const pieces = await readPieces(request);
  if (!pieces) return Response.json({ message: 'These are no files.' }, { status: 400 });
  return Response.json(await container().uploads.add((await params).id, pieces));
}

/** Throws away what was sent. */
export async function DELETE(request: Request, { params }: Params): Promise<Response> {
  const denied = await denyLoading(request);
  if (denied) return denied;
  const { id } = await params;
  container().uploads.discard(id);
  container().bringIns.discard(id);
  return Response.json({ discarded: true });
}

async function readPieces(request: Request): Promise<Piece[] | null> {
  try {
    const form = await request.formData();
    return await Promise.all([...form].map(([key, part]) => readPiece(key, part)));
  } catch {
    return null;
  }
}

/** A piece from a part whose key says `<offset> <path>`, or `<offset>` of the archive. */
async function readPiece(key: string, part: FormDataEntryValue): Promise<Piece> {
  const found = /^(\d{1,15})(?: (.+))?$/s.exec(key);
  if (!found || typeof part === 'string') throw new TypeError('no piece of a file');
  const content = new Uint8Array(await part.arrayBuffer());
  return { offset: Number(found[1]), name: found[2] ?? null, content };
}
