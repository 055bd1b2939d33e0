/** Who does something: a person by id, or the system's own command line. */
export interface Actor {
  id: string;
  name: string;
  /** `builder` may do everything; `visitor` sees what is public. */
  role: 'builder' | 'visitor';
}

/** What can be asked for. */
export type Deed = 'load' | 'write-entry' | 'publish' | 'change-design' | 'read-unpublished';

/** Somebody asked for what they may not do. */
export class NotPermitted extends Error {
  constructor(readonly deed: Deed) {
    super(`You may not do this (${deed}). Sign in as somebody who may.`);
    this.name = 'NotPermitted';
  }
}

/** The one place where rights are decided. @throws NotPermitted */
export function permit(actor: Actor, deed: Deed): void {
  if (actor.role !== 'builder') throw new NotPermitted(deed);
}

/** The command line acts for whoever may read and write the data folder. */
export const COMMAND_LINE: Actor = { id: 'command-line', name: 'Command line', role: 'builder' };
