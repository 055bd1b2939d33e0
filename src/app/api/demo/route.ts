import { container } from '@/server/process/container.ts';
import { denyLoading } from '@/server/process/deny-loading.ts';

/** Loads the demo where there is no site yet: nothing that is there is ever replaced by it. */
export async function POST(request: Request): Promise<Response> {
  const { loads, view } = container();
  const denied = await denyLoading(request);
  if (denied) return denied;
  if (view.at(Date.now()))
    return Response.json(
      { message: 'There is a site already; the demo would take its place.' },
      { status: 409 },
    );
  return Response.json(await loads.loadDemo());
}
