import { notFound } from 'next/navigation';
import { EntryScreen } from '@/ui/builder/entry/entry-screen.tsx';
import { GoneScreen } from '@/ui/builder/entry/gone-screen.tsx';
import type { Screen } from '../../screen.ts';

/** The screen of an entry, or what is left of it. */
export async function EntryPage({
  screen,
  id,
  language = null,
}: {
  screen: Screen;
  id: string;
  /** Id of the further language whose words are written; null for the site's own. */
  language?: string | null;
}) {
  const { clock, ask } = screen;
  const detail = await ask('entryDetail', id, clock.at, clock.now, language);
  if (!detail) {
    const gone = await ask('goneEntry', id, clock.at);
    if (!gone) notFound();
    return <GoneScreen gone={gone} clock={clock} />;
  }
  const outcome = (await ask(
    'entryOutcome',
    { id, type: detail.type.id, values: null, language },
    clock.at,
    clock.seeing,
  ))!;
  return (
    <EntryScreen key={`${id} ${language ?? ''}`} detail={detail} outcome={outcome} clock={clock} />
  );
}
