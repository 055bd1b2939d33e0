import { z } from 'zod';
import { ROLES } from '@/core/design/roles.ts';
import { type Result, ok, refused } from '@/core/issue.ts';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { type Account, OWNER, type People } from '../db/people.ts';
import { type Actor, COMMAND_LINE, SITE, permit } from '../permit.ts';
import type { Auth } from './auth.ts';

const name = z
  .string()
  .trim()
  .min(1, 'Give a name.')
  .max(100, 'A name has at most 100 characters.');
const role = z.enum(
  ROLES.map((one) => one.role),
  `Roles are ${ROLES.map((one) => one.role).join(' and ')}.`,
);
const id = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,63}$/, 'An id is a letter, then letters a-z, digits and hyphens.')
  .refine((own) => own !== COMMAND_LINE.id, 'This id is the command line’s own.');

/** Somebody as they are let in. */
export const accountSpec = z.strictObject({ id, name, role });

/** Said to whoever would lock everybody out. */
export const OWNER_STAYS = 'The builder whose links the command line prints stays a builder.';

const asked = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('add'), name, role }),
  z.strictObject({ do: z.literal('link'), id }),
  z.strictObject({ do: z.literal('change'), id, name, role }),
  z.strictObject({ do: z.literal('remove'), id }),
]);

/** What is done about people: by what a screen sends. */
export type PeopleRequest = z.input<typeof asked>;

/** Who it was done to; with a link that signs them in, where they were let in or asked for one. */
export interface PeopleAnswer {
  id: string;
  name: string;
  link: string | null;
}

/** What takes part: accounts, their links, and the ids of all who ever wrote here. */
interface Parts {
  people: People;
  auth: Auth;
  known: () => string[];
}

/** Lets people in, changes what they may do, and lets them in no more. @throws NotPermitted */
export async function changePeople(
  { people, auth, known }: Parts,
  actor: Actor,
  input: unknown,
): Promise<Result<PeopleAnswer>> {
  permit(actor, 'change-people', SITE);
  const parsed = asked.safeParse(input);
  if (!parsed.success)
    return refused({ code: 'wrong-form', message: parsed.error.issues[0]!.message });
  const { data } = parsed;
  if (data.do === 'add') {
    // Nobody becomes somebody who was here before.
    const all = new Set([COMMAND_LINE.id, ...people.all().map((one) => one.id), ...known()]);
    const account = {
      id: freeKey(typeKeyOf(data.name, 'en'), all),
      name: data.name,
      role: data.role,
    };
    people.put(account);
    return ok({ ...account, link: await auth.signInLink(account) });
  }
  const one = people.find(data.id);
  if (!one)
    return refused({
      code: 'unknown-name',
      message: 'They are let in no more: somebody else has changed that.',
      fix: 'Reload the page.',
    });
  if (data.do === 'link') return ok({ ...one, link: await auth.signInLink(one) });
  const stays = data.do === 'change' && data.role === 'builder';
  if (one.id === OWNER && !stays)
    return refused({ code: 'owner', message: OWNER_STAYS, fix: 'Let it be.' });
  if (data.do === 'remove') people.remove(one.id);
  else people.put({ id: one.id, name: data.name, role: data.role });
  return ok({ id: one.id, name: one.name, link: null });
}

/** Everybody who may sign in. @throws NotPermitted */
export function peopleLet(people: People, actor: Actor): Account[] {
  permit(actor, 'change-people', SITE);
  return people.all();
}
