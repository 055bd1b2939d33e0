import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PartChoice } from '../part-choice.tsx';

type Spec = TypeDetail['spec'];

/** Further templates that entries may choose for their pages, and the frame around those. */
export function PageChoices({
  spec,
  templates,
  frames,
  readOnly,
  onChange,
}: {
  spec: Spec;
  templates: TypeDetail['templates'];
  frames: TypeDetail['frames'];
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const { templates: further = [], frame, ...rest } = spec;
  const others = templates.filter(({ kind, key }) => kind === 'page' && key !== spec.template);
  const put = (next: string[], around: string | undefined): void =>
    onChange({
      ...rest,
      ...(next.length > 0 ? { templates: next } : {}),
      ...(around === undefined ? {} : { frame: around }),
    } as Spec);
  const tick = (key: string, isOn: boolean): void => {
    const all = others.map((t) => t.key);
    put(
      all.filter((k) => (k === key ? isOn : further.includes(k))),
      frame,
    );
  };
  return (
    <>
      {others.length > 0 && (
        <Line label="Entries may choose" help="Each on its own form, under Presets.">
          {others.map(({ key, label }) => (
            <label key={key} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="h-4 w-4 accent-spruce"
                checked={further.includes(key)}
                disabled={readOnly}
                onChange={(e) => tick(key, e.target.checked)}
              />
              {label}
            </label>
          ))}
        </Line>
      )}
      {frames.length > 0 && (
        <Line label="Frame" htmlFor="frame">
          <PartChoice
            id="frame"
            value={frame}
            none="As the site has it"
            options={frames}
            readOnly={readOnly}
            onChange={(v) => put(further, v === '' ? undefined : v)}
          />
        </Line>
      )}
    </>
  );
}
