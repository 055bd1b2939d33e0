import { useId } from 'react';
import { contrasts } from '@/core/style/contrast.ts';
import { COLOURS, type ColourName, type Colours } from '@/core/style/look-spec.ts';
import { tokensOf } from '@/core/style/sheet.ts';
import { type StyleLines, lookOf, withLook } from './style-lines.ts';

const NAMES = Object.keys(COLOURS) as ColourName[];

/** The colours by day and in the dark, each checked against what it is read on. */
export function ColourLines({ spec, readOnly, onChange }: StyleLines) {
  const look = lookOf(spec);
  const tokens = tokensOf(look);
  const put = (mode: 'light' | 'dark', name: ColourName, value: string | undefined): void => {
    const { [name]: _, ...rest } = look[mode] ?? {};
    const next = value === undefined ? rest : { ...rest, [name]: value };
    onChange(withLook(spec, mode, Object.keys(next).length > 0 ? next : undefined));
  };
  return (
    <section aria-label="Colours">
      <h2>Colours</h2>
      <table className="w-full">
        <thead>
          <tr className="text-left text-note text-muted">
            <th scope="col" className="font-normal">
              What for
            </th>
            <th scope="col" className="font-normal">
              By day
            </th>
            <th scope="col" className="font-normal">
              In the dark
            </th>
          </tr>
        </thead>
        <tbody>
          {NAMES.map((name) => (
            <tr key={name} className="border-t border-rule">
              <th scope="row" className="py-0.5 pr-3 text-left font-normal">
                {COLOURS[name]}
              </th>
              {(['light', 'dark'] as const).map((mode) => (
                <td key={mode} className="py-0.5 pr-2">
                  <ColourInput
                    label={`${COLOURS[name]}, ${mode === 'light' ? 'by day' : 'in the dark'}`}
                    value={tokens[mode][name]}
                    isOwn={look[mode]?.[name] !== undefined}
                    readOnly={readOnly}
                    onChange={(value) => put(mode, name, value)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <TooFaint words="By day" colours={tokens.light} />
      <TooFaint words="In the dark" colours={tokens.dark} />
    </section>
  );
}

function ColourInput({
  label,
  value,
  isOwn,
  readOnly,
  onChange,
}: {
  label: string;
  value: string;
  /** Whether it is otherwise than the starting style has it. */
  isOwn: boolean;
  readOnly: boolean;
  onChange: (value: string | undefined) => void;
}) {
  const id = useId();
  return (
    <span className="flex items-center gap-2">
      <input
        id={id}
        type="color"
        aria-label={label}
        className="h-6 w-8 border border-edge bg-white"
        value={value}
        disabled={readOnly}
        onChange={(e) => onChange(e.target.value)}
      />
      <span className={`font-mono text-note ${isOwn ? 'font-semibold' : 'text-muted'}`}>
        {value}
      </span>
      {isOwn && !readOnly && (
        <button
          type="button"
          className="button-quiet"
          aria-label={`${label}: as the starting style has it`}
          onClick={() => onChange(undefined)}
        >
          Go back
        </button>
      )}
    </span>
  );
}

/** Which words are too faint on their ground. */
function TooFaint({ words, colours }: { words: string; colours: Colours }) {
  const faint = contrasts(colours).filter(({ isEnough }) => !isEnough);
  if (faint.length === 0)
    return (
      <p className="mt-1 text-note text-muted">{`${words}: every text can be read, 4.5 : 1 or more.`}</p>
    );
  return (
    <ul className="mt-1 text-alarm">
      {faint.map(({ words: text, ground, ratio }) => (
        <li key={`${text}/${ground}`}>
          {`${words}: “${COLOURS[text]}” on “${COLOURS[ground]}” has ${ratio.toFixed(1)} : 1; words need 4.5 : 1.`}
        </li>
      ))}
    </ul>
  );
}
