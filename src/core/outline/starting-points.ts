/** A line of an outline that many sites begin with. */
export interface StartingPoint {
  /** What it is like: "article". */
  label: string;
  /** What it is for. */
  doc: string;
  line: string;
}

/** Types to begin with, in the order screens offer them; what they say is changed in the outline. */
export const STARTING_POINTS: readonly StartingPoint[] = [
  {
    label: 'Article',
    doc: 'Something to read, with a picture and topics.',
    line: 'Article: title (required), summary (paragraphs), picture, body (rich text), topics (tags)',
  },
  {
    label: 'Profile',
    doc: 'A person, a team, a place.',
    line: 'Person: name (required), role, photo, biography (rich text)',
  },
  {
    label: 'Dated happening',
    doc: 'What starts and ends, somewhere.',
    line: 'Event: title (required), starts (date and time), ends (date and time), place, details (rich text)',
  },
  {
    label: 'Single settings',
    doc: 'One entry that patterns everywhere can read.',
    line: 'Settings (single): phone, email, postal address (paragraphs)',
  },
  {
    label: 'Part without address',
    doc: 'What stands on other pages only.',
    line: 'Sponsor (no pages): name (required), logo, words (paragraphs)',
  },
];
