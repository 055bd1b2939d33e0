import { useState } from 'react';
import type { GivenRole } from '@/core/design/roles.ts';
import type { Account } from '@/server/db/people.ts';
import type { PeopleAnswer } from '@/server/process/accounts.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import type { Attempts } from '../../use-attempts.ts';
import { RoleChoice } from './role-choice.tsx';
import { sendPeople } from './send-people.ts';

interface Props {
  person: Account;
  isMe: boolean;
  attempts: Attempts;
  onLink: (given: PeopleAnswer) => void;
}

/** Somebody who may sign in: what they may do, and what can be done about it. */
export function PersonLine({ person, isMe, attempts, onLink }: Props) {
  const { id, name, role } = person;
  const { attempt, busy } = attempts;
  const [asking, setAsking] = useState(false);
  const isOwner = id === 'builder';
  const give = (next: GivenRole): Promise<boolean> =>
    attempt(
      () => sendPeople({ do: 'change', id, name, role: next }),
      () => ({
        words: `${name} is ${next} from now on.`,
        undo: role === 'visitor' ? undefined : { label: 'Undo', run: () => void give(role) },
      }),
    );
  const link = (): Promise<boolean> =>
    attempt(
      () => sendPeople({ do: 'link', id }),
      (done) => {
        onLink(done);
        return { words: '' };
      },
    );
  return (
    <li className="flex items-center gap-4 border-t border-rule py-1.5">
      <span className="min-w-0 flex-1 truncate font-[550]" title={name}>
        {name}
        {isMe && <span className="font-normal text-muted"> (you)</span>}
      </span>
      <code className="w-40 shrink-0 truncate text-muted" title={id}>
        {id}
      </code>
      <RoleChoice
        label={`Role of ${name}`}
        role={role}
        disabled={busy || isOwner || isMe}
        onChange={(next) => void give(next)}
      />
      <button type="button" className="button-quiet" disabled={busy} onClick={() => void link()}>
        New link
      </button>
      <button
        type="button"
        className="button-quiet"
        disabled={busy || isOwner || isMe}
        onClick={() => setAsking(true)}
      >
        Remove …
      </button>
      {asking && <AskRemove {...{ person, attempt }} onClose={() => setAsking(false)} />}
    </li>
  );
}

/** Says what becomes of what somebody wrote, before they are let in no more. */
function AskRemove({
  person: { id, name, role },
  attempt,
  onClose,
}: Pick<Props, 'person'> & Pick<Attempts, 'attempt'> & { onClose: () => void }) {
  const remove = (): Promise<boolean> => {
    onClose();
    return attempt(
      () => sendPeople({ do: 'remove', id }),
      () => ({ words: `${name}, ${role}, is let in no more.` }),
    );
  };
  return (
    <Dialog open onOpenChange={onClose} title={`Let ${name} in no more?`}>
      <p className="mt-2">
        Wherever they are signed in, that ends at once. What they wrote stays, under their name.
      </p>
      <div className="mt-4 flex gap-2">
        <button type="button" className="button button-main" onClick={() => void remove()}>
          Remove
        </button>
        <button type="button" className="button" onClick={onClose}>
          Keep
        </button>
      </div>
    </Dialog>
  );
}
