import { FACES } from '@/core/style/faces.ts';
import { type Look, ROOMS } from '@/core/style/look-spec.ts';
import { tokensOf } from '@/core/style/sheet.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { type StyleLines, lookOf, withLook } from './style-lines.ts';

const NUMBERS = [
  { name: 'text', label: 'Text size', unit: 'px', min: 14, max: 22, step: 1 },
  { name: 'scale', label: 'Heading step', unit: 'times', min: 1.1, max: 1.5, step: 0.01 },
  { name: 'width', label: 'Page width', unit: 'px', min: 560, max: 1600, step: 20 },
  { name: 'radius', label: 'Corners', unit: 'px', min: 0, max: 32, step: 1 },
] as const;
const ROOM_WORDS: Record<keyof typeof ROOMS, string> = {
  close: 'Close together',
  usual: 'As usual',
  wide: 'Wide apart',
};
const FACE_LABELS = Object.entries(FACES).map(([key, { label }]) => [key, label] as const);

const labelOf = (face: string): string => FACES[face as keyof typeof FACES].label;

/** Type, room and corners: each as the starting style has it until it is set. */
export function TypeLines({ spec, readOnly, onChange }: StyleLines) {
  const look = lookOf(spec);
  const tokens = tokensOf(look);
  const own = [...new Set(look.fonts?.map((font) => font.name))].map(
    (font) => [font, font] as const,
  );
  const put = <K extends keyof Look>(name: K, value: Look[K] | undefined): void =>
    onChange(withLook(spec, name, value));
  return (
    <section aria-label="Type and room">
      <h2>Type and room</h2>
      {(['textFace', 'headingFace'] as const).map((name) => (
        <Line key={name} label={name === 'textFace' ? 'Text' : 'Headings'} htmlFor={`look-${name}`}>
          <select
            id={`look-${name}`}
            className="control"
            disabled={readOnly}
            value={look[name] ?? ''}
            onChange={(e) => put(name, e.target.value || undefined)}
          >
            <option value="">{`As it starts: ${labelOf(tokensOf({ start: look.start })[name])}`}</option>
            {[...own, ...FACE_LABELS].map(([key, label]) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
        </Line>
      ))}
      {NUMBERS.map(({ name, label, unit, ...range }) => (
        <Line key={name} label={label} htmlFor={`look-${name}`}>
          <span className="flex h-8 items-center gap-2">
            <input
              id={`look-${name}`}
              type="range"
              className="w-40 accent-spruce"
              {...range}
              disabled={readOnly}
              value={tokens[name]}
              onChange={(e) => put(name, Number(e.target.value))}
            />
            <span className="w-20 tabular-nums">{`${tokens[name]} ${unit}`}</span>
            {look[name] !== undefined && !readOnly && (
              <button
                type="button"
                className="button-quiet"
                aria-label={`${label}: as it starts`}
                onClick={() => put(name, undefined)}
              >
                Go back
              </button>
            )}
          </span>
        </Line>
      ))}
      <Line label="Room between" htmlFor="look-room">
        <select
          id="look-room"
          className="control"
          disabled={readOnly}
          value={tokens.room}
          onChange={(e) => put('room', e.target.value as keyof typeof ROOMS)}
        >
          {Object.entries(ROOM_WORDS).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </Line>
    </section>
  );
}
