'use client';

import { type ReactNode, useRef } from 'react';
import type { Issue } from '@/core/issue.ts';
import { Result } from '@/ui/primitives/line.tsx';
import { OfferList, usePatternOffers } from './pattern-offers.tsx';

interface Props {
  id: string;
  value: string;
  placeholder?: string;
  readOnly: boolean;
  /** Whether it makes an address: not everything may be read there. */
  isAddress?: boolean;
  /** Whether it is written without the braces around it. */
  isExpression?: boolean;
  issues: Issue[];
  /** What it gives; where something is wrong, that stands in its place. */
  result?: ReactNode;
  onChange: (value: string) => void;
}

/** A pattern's control: what it gives stands below, or what is wrong with it, the place named. */
export function PatternInput(props: Props) {
  const { id, value, placeholder, readOnly, issues, result, onChange } = props;
  const { isAddress = false, isExpression = false } = props;
  const field = useRef<HTMLInputElement>(null);
  const offers = usePatternOffers(field, { isAddress, isExpression, onChange });
  const { shown, active } = offers;
  const look = (input: HTMLInputElement): void =>
    offers.look(input.value, input.selectionStart ?? input.value.length);
  return (
    <>
      <div className="relative">
        <input
          ref={field}
          id={id}
          className="control font-mono !text-table"
          spellCheck={false}
          autoComplete="off"
          value={value}
          placeholder={placeholder}
          disabled={readOnly}
          role="combobox"
          aria-autocomplete="list"
          aria-expanded={shown !== null}
          aria-controls={shown ? `${id}-offers` : undefined}
          aria-activedescendant={shown ? `${id}-offers-${active}` : undefined}
          aria-invalid={issues.length > 0}
          aria-describedby={issues.length > 0 ? `${id}-issues` : undefined}
          onChange={(e) => {
            onChange(e.target.value);
            look(e.target);
          }}
          onClick={(e) => shown && look(e.currentTarget)}
          onKeyDown={offers.onKey}
          onBlur={offers.leave}
        />
        <OfferList id={`${id}-offers`} offers={offers} />
      </div>
      <div className={result === undefined ? '' : 'min-h-11'}>
        {issues.length === 0 && result !== undefined && <Result>{result}</Result>}
        {issues.length > 0 && (
          <ul id={`${id}-issues`} className="mt-1">
            {issues.map((issue, i) => (
              <IssueLine
                key={i}
                issue={issue}
                value={value}
                onMend={readOnly ? undefined : onChange}
              />
            ))}
          </ul>
        )}
      </div>
    </>
  );
}

/** What is wrong, where, and what would mend it at a press. */
function IssueLine({
  issue: { range, message, fix, replacement },
  value,
  onMend,
}: {
  issue: Issue;
  value: string;
  onMend: ((value: string) => void) | undefined;
}) {
  return (
    <li className="text-alarm">
      {range && (
        <code className="mr-1 bg-amber-tint px-1 font-mono text-note">
          {value.slice(range.start, range.end) || '…'}
        </code>
      )}
      {message} <span className="text-muted">{fix}</span>
      {replacement !== undefined && range && onMend && (
        <button
          type="button"
          className="button-quiet ml-1"
          onClick={() => onMend(value.slice(0, range.start) + replacement + value.slice(range.end))}
        >
          {`Use “${replacement}”`}
        </button>
      )}
    </li>
  );
}
