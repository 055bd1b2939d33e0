import { container } from '@/server/process/container.ts';
import { denyLoading } from '@/server/process/deny-loading.ts';

/** Begins to take in a site folder; gives the id by which its files are sent. */
export async function POST(request: Request): Promise<Response> {
  const denied = await denyLoading(request);
  return denied ?? Response.json({ id: container().uploads.begin() });
}
