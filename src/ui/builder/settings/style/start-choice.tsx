import { STARTS, type StartKey } from '@/core/style/look-spec.ts';
import { START } from '@/core/style/starts.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { type StyleLines, lookOf } from './style-lines.ts';

/** Where the style starts: one of the starting styles, or nothing but the site's own rules. */
export function StartChoice({ spec, readOnly, onChange }: StyleLines) {
  const isOwn = !spec.look && spec.css.trim() !== '';
  const choose = (start: StartKey): void => onChange({ ...spec, look: { ...lookOf(spec), start } });
  const chooseOwn = (): void => onChange({ css: spec.css });
  return (
    <Line label="Starts as">
      <div role="radiogroup" aria-label="Starting style" className="flex flex-col gap-1 pt-1">
        {STARTS.map((key) => (
          <Choice
            key={key}
            label={START[key].label}
            doc={START[key].doc}
            isOn={!isOwn && lookOf(spec).start === key}
            readOnly={readOnly}
            onChoose={() => choose(key)}
          />
        ))}
        {spec.css.trim() !== '' && (
          <Choice
            label="Own rules alone"
            doc="Nothing but the rules below."
            isOn={isOwn}
            readOnly={readOnly}
            onChoose={chooseOwn}
          />
        )}
      </div>
    </Line>
  );
}

function Choice({
  label,
  doc,
  isOn,
  readOnly,
  onChoose,
}: {
  label: string;
  doc: string;
  isOn: boolean;
  readOnly: boolean;
  onChoose: () => void;
}) {
  return (
    <label className="flex items-baseline gap-2">
      <input
        type="radio"
        name="starting-style"
        className="accent-spruce"
        checked={isOn}
        disabled={readOnly}
        onChange={onChoose}
      />
      <span>
        <span className="font-[550]">{label}</span>{' '}
        <span className="text-note text-muted">{doc}</span>
      </span>
    </label>
  );
}
