/** What somebody can be on a site, in the order in which screens offer it. */
export const ROLES = [
  { role: 'builder', label: 'Builder', words: 'Does everything, the design included.' },
  { role: 'editor', label: 'Editor', words: 'Writes, arranges and publishes what the site holds.' },
] as const;

/** A role that somebody can be given. */
export type GivenRole = (typeof ROLES)[number]['role'];
/** A role by name; visitors see what is public. */
export type Role = GivenRole | 'visitor';

/** Roles that forms of texts can be narrower for: those who do not decide what forms let in. */
export const NARROWED = ['editor'] as const satisfies readonly GivenRole[];
