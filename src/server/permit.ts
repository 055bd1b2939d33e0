/** Who does something: a person by id, or the system's own command line. */
export interface Actor {
  id: string;
  name: string;
  /** `builder` may do everything; `visitor` sees what is public. */
  role: 'builder' | 'visitor';
}

/** What can be asked for. */
export type Deed =
  | 'load'
  | 'write-entry'
  | 'publish'
  /** To take an entry away for good, with its past. */
  | 'purge'
  | 'change-design'
  | 'read-unpublished';

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
    super(`You may not do this (${deed}). Sign in as somebody who may.`);
    this.name = 'NotPermitted';
  }
}

/** The one place where rights are decided. @throws NotPermitted */
export function permit(actor: Actor, deed: Deed, object: DeedObject): void {
  if (actor.role !== 'builder') throw new NotPermitted(deed, object);
}

/** The command line acts for whoever may read and write the data folder. */
export const COMMAND_LINE: Actor = { id: 'command-line', name: 'Command line', role: 'builder' };
