import { container } from '@/server/container.ts';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <p>{container().view.at(Date.now())?.site.design.site.name ?? 'none'}</p>;
}
