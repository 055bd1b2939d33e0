import { slugText } from '@/core/pattern/slug.ts';
import { container } from '@/server/process/container.ts';

/** The whole site as a ZIP archive of its folder (docs/site-folder.md), made as it is read. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, true);
}

/** Whether the archive can be had now; it is not made. */
export async function HEAD(request: Request): Promise<Response> {
  return answer(request, false);
}

async function answer(request: Request, isMade: boolean): Promise<Response> {
  const { auth, saver, view } = container();
  const actor = await (await auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  const site = view.at(Date.now())?.site;
  if (!site) return Response.json({ message: 'There is no site yet.' }, { status: 404 });
  if (saver.busy)
    return Response.json(
      { message: 'The site is being saved already. Try again when that has finished.' },
      { status: 503, headers: { 'retry-after': '10' } },
    );
  const name = `${slugText(site.design.site.name, site.design.site.language) || 'site'}.zip`;
  return new Response(isMade ? saver.zip(actor) : null, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    },
  });
}
