import { EntryScreen } from '@/ui/builder/entry/entry-screen.tsx';
import { EntryPage } from '../../entry-page.tsx';
import { type SearchParams, openScreen } from '../../../../screen.ts';

export const metadata = { title: 'New entry' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ type: string }>;
  searchParams: SearchParams;
}) {
  const screen = await openScreen(searchParams);
  const { clock, search, ask } = screen;
  const { type } = await params;
  const { like: entry, keep, starter } = search;
  const fields = keep === undefined ? null : keep.split(',');
  const here = hereOf(search);
  const like = here ?? (entry ? { entry, fields } : null);
  const detail = await ask('newEntry', type, clock.at, starter ? { starter } : like);
  // Entries of a type that is called so have such ids, too.
  if (!detail) return <EntryPage screen={screen} id={`new/${decodeURIComponent(type)}`} />;
  const outcome = (await ask(
    'entryOutcome',
    { id: null, type, values: detail.values },
    clock.at,
    'draft',
  ))!;
  return <EntryScreen detail={detail} outcome={outcome} clock={clock} />;
}

/** Where a new entry is to stand: `listing/KEY`, `picks/KEY`, or `leading/FIELD/ENTRY`. */
function hereOf({ here, on, each }: Record<string, string | undefined>) {
  const [of, name, ...rest] = (here ?? '').split('/');
  if (of === 'listing' && name) return { here: { listing: name, on, each } };
  if (of === 'picks' && name) return { here: { picks: name } };
  return of === 'leading' && name && rest.length > 0
    ? { here: { field: name, entry: rest.join('/') } }
    : null;
}
