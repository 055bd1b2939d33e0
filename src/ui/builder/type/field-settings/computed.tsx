import { Line } from '@/ui/primitives/line.tsx';
import { PatternInput } from '../../pattern-input.tsx';
import type { FieldSettingsProps } from './definition.ts';

/** What a computed field is worked out by. */
export function ComputedSettings({ id, field, readOnly, onChange }: FieldSettingsProps) {
  return (
    <Line
      label="Pattern"
      htmlFor={`${id}-pattern`}
      help="Text with fields in braces: {first} {last}. Nobody writes it; lists can be ordered by it where it reads this entry's own fields alone."
    >
      <PatternInput
        id={`${id}-pattern`}
        value={field.pattern ?? ''}
        readOnly={readOnly}
        issues={[]}
        onChange={(pattern) => onChange({ ...field, pattern })}
      />
    </Line>
  );
}
