import { useId, useState } from 'react';
import { Chips } from './chips.tsx';
import { labelsOf } from './choice.tsx';
import { type ControlProps, asText, common } from './definition.ts';

/** One or several of what is prepared, found by typing. */
export function SearchControl(props: ControlProps) {
  const { field, value, onChange } = props;
  const labelOf = labelsOf(field.options);
  if (field.many)
    return (
      <Chips {...props} labelOf={labelOf}>
        {(chosen, add) => (
          <Typed
            props={props}
            shown=""
            without={chosen}
            onFound={(found) => found !== null && add(found)}
          />
        )}
      </Chips>
    );
  const shown = asText(value) === '' ? '' : labelOf(asText(value));
  return <Typed key={shown} props={props} shown={shown} without={[]} onFound={onChange} />;
}

/** What is typed is taken where it is the name of an option; emptied, it is none. */
function Typed({
  props,
  shown,
  without,
  onFound,
}: {
  props: ControlProps;
  shown: string;
  without: string[];
  onFound: (value: string | null) => void;
}) {
  const list = useId();
  const [typed, setTyped] = useState(shown);
  const { options } = props.field;
  const offered = options.filter((o) => !without.includes(o.value));
  const take = (text: string): void => {
    setTyped(text);
    const found = offered.find((o) => o.label.toLowerCase() === text.trim().toLowerCase());
    if (found) {
      onFound(found.value);
      if (props.field.many) setTyped('');
    } else if (text.trim() === '') onFound(null);
  };
  return (
    <>
      <input
        {...common(props)}
        className="control mt-1"
        list={list}
        placeholder="Type to find one"
        value={typed}
        onChange={(e) => take(e.target.value)}
        onBlur={() => setTyped(props.field.many ? '' : shown)}
      />
      <datalist id={list}>
        {offered.map((o) => (
          <option key={o.value} value={o.label} />
        ))}
      </datalist>
    </>
  );
}
