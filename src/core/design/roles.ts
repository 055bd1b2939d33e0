/** What somebody can be on a site, in the order in which screens offer it. */
export const ROLES = [
  { role: 'builder', label: 'Builder', words: 'Does everything, the design included.' },
  { role: 'editor', label: 'Editor', words: 'Writes, arranges and publishes what the site holds.' },
] as const;

/** A role by name; visitors see what is public. */
export type Role = (typeof ROLES)[number]['role'] | 'visitor';

/** Roles that forms of texts can be narrower for: those who do not decide what forms let in. */
export const NARROWED = ['editor'] as const satisfies readonly Role[];
