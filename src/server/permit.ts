import type { Role } from '@/core/design/roles.ts';

/** Who does something: a person by id, or the system's own command line. */
export interface Actor {
  id: string;
  name: string;
  role: Role;
}

/** What can be asked for, as refusals say it. */
const DEEDS = {
  load: 'load a site in place of this one',
  'write-entry': 'write entries',
  publish: 'change what is public',
  purge: 'take an entry away for good, with its past',
  'change-design': 'change the design of the site',
  'change-people': 'say who works on the site',
  'read-unpublished': 'see what is not public',
};

/** What can be asked for. */
export type Deed = keyof typeof DEEDS;

/** What a deed is done to: the site as a whole, or something of it. */
export type DeedObject =
  | { of: 'site' }
  /** A type, listing, … of the design, by its path. */
  | { of: 'part'; path: string }
  /** Entries of a type, by its id. */
  | { of: 'type'; id: string }
  | { of: 'entry'; id: string };

/** The site as a whole. */
export const SITE: DeedObject = { of: 'site' };

/** Somebody asked for what they may not do. */
export class NotPermitted extends Error {
  constructor(
    readonly deed: Deed,
    readonly object: DeedObject,
  ) {
    super(`You may not ${DEEDS[deed]}.`);
    this.name = 'NotPermitted';
  }
}

/** What those of each role may do. */
const RIGHTS: Record<Role, ReadonlySet<Deed>> = {
  builder: new Set(Object.keys(DEEDS) as Deed[]),
  editor: new Set<Deed>(['write-entry', 'publish', 'read-unpublished']),
  visitor: new Set(),
};

/** All that somebody may do: screens leave out the rest. */
export function rightsOf({ role }: Actor): Deed[] {
  return [...RIGHTS[role]];
}

/** The one place where rights are decided. @throws NotPermitted */
export function permit(actor: Actor, deed: Deed, object: DeedObject): void {
  if (!RIGHTS[actor.role].has(deed)) throw new NotPermitted(deed, object);
}

/** The command line acts for whoever may read and write the data folder. */
export const COMMAND_LINE: Actor = { id: 'command-line', name: 'Command line', role: 'builder' };
