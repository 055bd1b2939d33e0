import type { Issue } from '@/core/issue.ts';
import type { TimingRule } from '@/core/design/timing-spec.ts';
import { SPAN_UNITS, START_WORDS, type SpanUnit, spanOf, spanParts } from '@/core/timing/words.ts';
import { canStartTiming } from '@/core/timing/rules.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { Result } from '@/ui/primitives/line.tsx';
import { Word, WordInput } from '@/ui/primitives/word.tsx';
import { newId } from '../design-steps.ts';
import { instantWords } from '../format.ts';
import { WhereWords } from '../listing/where-words.tsx';
import { CopyFrom } from './copy-from.tsx';
import { Wrong } from './names-settings.tsx';

type Spec = TypeDetail['spec'];

interface Props {
  spec: Spec;
  detail: TypeDetail;
  outcome: TypeOutcome;
  clock: Clock;
  readOnly: boolean;
  issuesAt: (place: string) => Issue[];
  onChange: (spec: Spec) => void;
}

/** What is done to entries by itself, and when: each rule is a sentence whose words are controls. */
export function TimingSettings(props: Props) {
  const { spec, detail, readOnly, issuesAt, onChange } = props;
  const { timing = [], ...rest } = spec;
  const ofOne = new Set(timing.flatMap((_, i) => issuesAt(`timing/${i + 1}`)));
  const put = (rules: TimingRule[]): void =>
    onChange((rules.length === 0 ? rest : { ...rest, timing: rules }) as Spec);
  return (
    <div className="py-1.5">
      <p className="text-muted">
        Rules act on what lies ahead: entries whose time has passed when a rule is released stay as
        they are, and what somebody plans by hand comes first.
      </p>
      {!readOnly && (
        <CopyFrom
          what="timing rules"
          own={detail.spec.key}
          types={detail.types.filter((other) => (other.timing ?? []).length > 0)}
          onPick={(other) => put(copied(other.timing ?? []))}
        />
      )}
      <Wrong issues={issuesAt('timing').filter((issue) => !ofOne.has(issue))} />
      <ol aria-label="Timing rules">
        {timing.map((rule, i) => (
          <li key={rule.id} className="border-t border-rule py-2">
            <Rule
              {...props}
              rule={rule}
              issues={issuesAt(`timing/${i + 1}`)}
              onRule={(next) => put(timing.map((r) => (r.id === rule.id ? next : r)))}
              onTake={() => put(timing.filter((r) => r.id !== rule.id))}
            />
          </li>
        ))}
      </ol>
      {timing.length === 0 && (
        <p className="py-1 text-muted">None: entries go live and leave when somebody says so.</p>
      )}
      {!readOnly && (
        <button
          type="button"
          className="button mt-1"
          onClick={() => put([...timing, firstGuess(spec)])}
        >
          Add a rule
        </button>
      )}
    </div>
  );
}

/** A rule that fits: after the last date that the type has, else after going live. */
function firstGuess({ fields }: Spec): TimingRule {
  const from = fields.findLast(canStartTiming)?.key ?? 'entry.published';
  return { id: newId(), do: 'retire', from, after: from === 'entry.published' ? 'P14D' : 'P1D' };
}

/** Rules of another type, under ids of their own. */
function copied(rules: readonly TimingRule[]): TimingRule[] {
  return rules.map((rule) => ({ ...rule, id: newId() }));
}

const DEEDS = [
  { value: 'retire', label: 'Retires' },
  { value: 'publish', label: 'Goes live' },
];
const SIDES = [
  { value: 'after', label: 'after' },
  { value: 'before', label: 'before' },
];

function Rule({
  spec,
  detail,
  outcome,
  clock,
  readOnly,
  rule,
  issues,
  onRule,
  onTake,
}: Props & {
  rule: TimingRule;
  issues: Issue[];
  onRule: (rule: TimingRule) => void;
  onTake: () => void;
}) {
  const starts = [
    ...spec.fields.filter(canStartTiming).map(({ key, label }) => ({ value: key, label })),
    ...Object.entries(START_WORDS)
      .filter(([key]) => rule.do === 'retire' || key !== 'entry.published')
      .map(([value, label]) => ({ value, label })),
  ];
  const at = outcome.timing[rule.id];
  const setWhere = (where: TimingRule['where']): void => {
    const { where: _, ...rest } = rule;
    onRule(where === undefined ? rest : { ...rest, where });
  };
  return (
    <>
      <fieldset disabled={readOnly} className="sentence">
        <legend className="sr-only">A timing rule as a sentence</legend>
        <Word
          label="What it does"
          value={rule.do}
          options={DEEDS}
          onChange={(deed) => onRule({ ...rule, do: deed as TimingRule['do'] })}
        />{' '}
        <Span span={rule.after} onChange={(after) => onRule({ ...rule, after })} />{' '}
        <Word
          label="Counted from"
          value={rule.from}
          options={starts}
          onChange={(from) => onRule({ ...rule, from })}
        />{' '}
        <WhereWords
          where={rule.where}
          detail={{ columns: detail.columns, names: {}, at: clock.at }}
          onChange={setWhere}
        />
        .{' '}
        {!readOnly && (
          <button type="button" className="button-quiet" onClick={onTake}>
            Take away
          </button>
        )}
      </fieldset>
      <Result>
        {at === undefined || at === null ? (
          <span className="text-muted">{`${outcome.specimen}: never`}</span>
        ) : (
          <span className="text-amber-text">
            {`${outcome.specimen}: ${instantWords(at, clock.zone, clock.now)}`}
          </span>
        )}
      </Result>
      <Wrong issues={issues} />
    </>
  );
}

/** How much before or after: a number of one unit, or an ISO 8601 duration of several. */
function Span({ span, onChange }: { span: string; onChange: (span: string) => void }) {
  const parts = spanParts(span);
  if (!parts) return <WordInput label="How much later" value={span} onChange={onChange} />;
  const units = SPAN_UNITS.map(({ unit, one }) => ({
    value: unit,
    label: parts.count === 1 ? one : unit,
  }));
  return (
    <>
      <WordInput
        label="How many"
        value={String(parts.count)}
        onChange={(text) => {
          if (/^\d{0,5}$/.test(text)) onChange(spanOf({ ...parts, count: Number(text) }));
        }}
      />{' '}
      <Word
        label="Unit"
        value={parts.unit}
        options={units}
        onChange={(unit) => onChange(spanOf({ ...parts, unit: unit as SpanUnit }))}
      />{' '}
      <Word
        label="Before or after"
        value={parts.isBefore ? 'before' : 'after'}
        options={SIDES}
        onChange={(side) => onChange(spanOf({ ...parts, isBefore: side === 'before' }))}
      />
    </>
  );
}
