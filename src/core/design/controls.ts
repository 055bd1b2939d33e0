/** The controls that forms have, by name; `ui/builder/entry/controls` holds one for each. */
export const CONTROLS = [
  'line',
  'lines',
  'rich-text',
  'number',
  'yes-no',
  'day',
  'instant',
  'option',
  'link',
  'group',
  'computed',
  'picture',
  'entry',
  'subject',
  'tags',
  'radio',
  'checks',
  'slider',
  'search',
] as const;
/** The name of a control that values are edited with. */
export type ControlName = (typeof CONTROLS)[number];
