import { connection } from 'next/server';
import { rightsOf } from '@/server/permit.ts';
import { peopleLet } from '@/server/process/accounts.ts';
import { container } from '@/server/process/container.ts';
import { NotYours } from '@/ui/builder/shell/not-yours.tsx';
import { PeopleScreen } from '@/ui/builder/settings/people/people-screen.tsx';
import { signedIn } from '../../../session.ts';

export const metadata = { title: 'People' };

export default async function Page() {
  await connection();
  const actor = await signedIn();
  if (!rightsOf(actor).includes('change-people'))
    return <NotYours title="People" words="Builders of the site say who works on it." />;
  return <PeopleScreen people={peopleLet(container().people, actor)} me={actor.id} />;
}
