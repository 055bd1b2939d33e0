'use client';

import { NARROWED, ROLES } from '@/core/design/roles.ts';
import { BLOCK_CHOICES, MARK_CHOICES } from '@/core/rich-text/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TextFormLine, TextsDetail } from '@/server/queries/texts.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { DesignFoot } from '../../design-foot.tsx';
import { OnBench } from '../../on-bench.tsx';
import { reachOf } from '../../reach/reach-of.ts';
import { useDesignReadOnly } from '../../rights.tsx';
import { useEdits } from '../../use-edits.ts';
import { useRelease } from '../../use-release.tsx';
import { type Tick, Ticks } from '@/ui/primitives/ticks.tsx';

const MARKS = MARK_CHOICES.map(({ type, label }) => ({ value: type, label }));
const BLOCKS = BLOCK_CHOICES.map(({ type, label }) => ({ value: type, label }));
const LEVELS = [1, 2, 3, 4, 5, 6].map((value) => ({ value, label: String(value) }));

type Form = Omit<TextFormLine, 'fields' | 'onBench'>;
type Ticked = 'marks' | 'blocks' | 'levels' | 'parts' | 'styles';

/** What one form of texts lets in, ticked mark by mark, block by block, part by part. */
export function FormEditor({
  form: { onBench, fields: _, ...latest },
  detail,
  clock,
}: {
  form: TextFormLine;
  detail: TextsDetail;
  clock: Clock;
}) {
  const edits = useEdits<Form>(`textForms/${latest.id}`, latest);
  const { spec } = edits;
  const readOnly = useDesignReadOnly(clock);
  const release = useRelease({ edits, allowed: !readOnly && spec.label !== '', clock });
  const set = (property: Ticked, value: readonly (string | number)[] | undefined): void => {
    const { [property]: __, ...rest } = spec;
    edits.change((value === undefined ? rest : { ...rest, [property]: value }) as Form);
  };
  const ticks = <T extends string | number>(
    property: Ticked,
    label: string,
    of: readonly Tick<T>[],
    all: string,
  ) => (
    <Line label={label}>
      <Ticks
        id={`${spec.id}-${property}`}
        of={of}
        ticked={spec[property] as T[] | undefined}
        {...{ all, readOnly }}
        onChange={(value) => set(property, value)}
      />
    </Line>
  );
  const parts = detail.parts.map(({ key, label }) => ({ value: key, label }));
  const styles = detail.styles.map(({ key, label }) => ({ value: key, label }));
  return (
    <div className="flex flex-col gap-1 border-l-2 border-rule pl-4">
      <OnBench lines={onBench} />
      <Line label="Name" htmlFor={`${spec.id}-label`}>
        <input
          id={`${spec.id}-label`}
          className="control max-w-[320px]"
          value={spec.label}
          readOnly={readOnly}
          onChange={(e) => edits.change({ ...spec, label: e.target.value })}
        />
      </Line>
      {ticks('marks', 'Marks', MARKS, 'All marks')}
      {ticks('blocks', 'Blocks', BLOCKS, 'All blocks')}
      {ticks('levels', 'Headings', LEVELS, 'All levels')}
      {ticks('parts', 'Parts', parts, 'All types without pages')}
      {ticks('styles', 'Styles', styles, 'All styles')}
      {NARROWED.map((role) => (
        <Narrowing key={role} {...{ spec, role, detail, readOnly }} onChange={edits.change} />
      ))}
      <div className="mt-2 flex gap-2">{release.buttons}</div>
      <DesignFoot clock={clock} release={release} reach={reachOf(clock, edits.steps, [])} />
    </div>
  );
}

type NarrowedRole = (typeof NARROWED)[number];

/** The form that narrows this one for those of a role. */
function Narrowing({
  spec,
  role,
  detail,
  readOnly,
  onChange,
}: {
  spec: Form;
  role: NarrowedRole;
  detail: TextsDetail;
  readOnly: boolean;
  onChange: (spec: Form) => void;
}) {
  const id = `${spec.id}-${role}`;
  const who = ROLES.find((one) => one.role === role)!.label;
  const choose = (key: string): void => {
    const { [role]: _, ...others } = spec.roles ?? {};
    const roles = key === '' ? others : { ...others, [role]: key };
    const { roles: __, ...rest } = spec;
    onChange(Object.keys(roles).length === 0 ? rest : { ...rest, roles });
  };
  return (
    <Line label={`${who}s put in`} htmlFor={id} help="What others put in stays when they save.">
      <select
        id={id}
        className="control max-w-[320px]"
        disabled={readOnly}
        value={spec.roles?.[role] ?? ''}
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">All of this</option>
        {detail.forms
          .filter((other) => other.id !== spec.id)
          .map((other) => (
            <option key={other.id} value={other.key}>
              {`Of this what “${other.label}” lets in, too`}
            </option>
          ))}
      </select>
    </Line>
  );
}
