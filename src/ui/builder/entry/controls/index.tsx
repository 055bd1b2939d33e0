'use client';

import type { ComponentType } from 'react';
import type { ControlName } from '@/core/design/controls.ts';
import { RichTextControl } from '../rich-text/rich-text-control.tsx';
import { OptionControl, YesNoControl } from './choice.tsx';
import { ComputedControl } from './computed.tsx';
import type { ControlProps } from './definition.ts';
import { EntryControl } from './entry.tsx';
import { GroupControl } from './group.tsx';
import { InnerControls } from './inner.ts';
import { LinkControl } from './link.tsx';
import { LineControl, LinesControl, NumberControl } from './line.tsx';
import { DayControl, InstantControl } from './moment.tsx';
import { PictureControl } from './picture.tsx';
import { SearchControl } from './search.tsx';
import { Several } from './several.tsx';
import { TagsControl } from './tags.tsx';
import { ChecksControl, RadioControl, SliderControl } from './ticked.tsx';

/** A control, and whether it holds several values itself. */
interface Control {
  draw: ComponentType<ControlProps>;
  holdsMany?: true;
}

/** Every control of forms, by the name that field kinds give it. */
const CONTROLS: Record<ControlName, Control> = {
  line: { draw: LineControl },
  lines: { draw: LinesControl },
  'rich-text': { draw: RichTextControl },
  number: { draw: NumberControl },
  'yes-no': { draw: YesNoControl },
  day: { draw: DayControl },
  instant: { draw: InstantControl },
  option: { draw: OptionControl, holdsMany: true },
  subject: { draw: OptionControl, holdsMany: true },
  tags: { draw: TagsControl, holdsMany: true },
  radio: { draw: RadioControl },
  checks: { draw: ChecksControl, holdsMany: true },
  slider: { draw: SliderControl },
  search: { draw: SearchControl, holdsMany: true },
  link: { draw: LinkControl },
  computed: { draw: ComputedControl },
  group: { draw: GroupControl, holdsMany: true },
  picture: { draw: PictureControl, holdsMany: true },
  entry: { draw: EntryControl, holdsMany: true },
};

/**
 * The control of a field; one that holds a single value stands once for each where there are
 * several.
 */
export function FieldControl(props: ControlProps) {
  const { draw: Draw, holdsMany } = CONTROLS[props.field.control];
  const single = !props.field.many || holdsMany;
  return (
    <InnerControls value={FieldControl}>
      {single ? <Draw {...props} /> : <Several props={props} draw={(one) => <Draw {...one} />} />}
    </InnerControls>
  );
}
