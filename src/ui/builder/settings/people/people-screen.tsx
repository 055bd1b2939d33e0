'use client';

import { useState } from 'react';
import { type GivenRole, ROLES } from '@/core/design/roles.ts';
import type { Account } from '@/server/db/people.ts';
import type { PeopleAnswer } from '@/server/process/accounts.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { type Attempts, useAttempts } from '../../use-attempts.ts';
import { AddLine } from '../add-line.tsx';
import { PersonLine } from './person-line.tsx';
import { RoleChoice } from './role-choice.tsx';
import { sendPeople } from './send-people.ts';
import { SignInLink } from './sign-in-link.tsx';

/** Who works on the site, and what each may do. */
export function PeopleScreen({ people, me }: { people: readonly Account[]; me: string }) {
  const attempts = useAttempts();
  const [given, setGiven] = useState<PeopleAnswer | null>(null);
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>People</h1>
      <p className="text-muted">
        Who works on the site. Each signs in by a link that holds once, for 15 minutes.
      </p>
      <dl className="mt-2 grid max-w-[560px] grid-cols-[96px_minmax(0,1fr)]">
        {ROLES.map(({ role, label, words }) => (
          <div key={role} className="contents">
            <dt className="font-[550]">{label}</dt>
            <dd className="text-muted">{words}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-3">
        <SaidLine said={attempts.said} />
        <Issues issues={attempts.issues} title="Not done" answers />
      </div>
      {given?.link && <SignInLink {...given} link={given.link} onDone={() => setGiven(null)} />}
      <ul className="mt-4 max-w-[760px]">
        {people.map((person) => (
          <PersonLine
            key={person.id}
            {...{ person, attempts }}
            isMe={person.id === me}
            onLink={setGiven}
          />
        ))}
      </ul>
      <LetIn attempts={attempts} onLink={setGiven} />
    </main>
  );
}

/** Lets somebody new in. */
function LetIn({
  attempts: { attempt, busy },
  onLink,
}: {
  attempts: Attempts;
  onLink: (given: PeopleAnswer) => void;
}) {
  const [role, setRole] = useState<GivenRole>('editor');
  return (
    <AddLine
      label="Name of whoever is let in"
      placeholder="Somebody new, such as “Mara Quist”"
      button="Let them in"
      busy={busy}
      onAdd={(name) =>
        attempt(
          () => sendPeople({ do: 'add', name, role }),
          (done) => {
            onLink(done);
            return { words: `${done.name} may sign in.` };
          },
        )
      }
    >
      <RoleChoice label="Their role" role={role} disabled={busy} onChange={setRole} />
    </AddLine>
  );
}
