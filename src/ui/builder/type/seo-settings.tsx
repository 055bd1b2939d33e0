import type { Issue } from '@/core/issue.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PatternInput } from '../pattern-input.tsx';
import { CopyFrom } from './copy-from.tsx';

type Spec = TypeDetail['spec'];

/** What search engines are told of a type's pages. */
export function SeoSettings({
  spec,
  detail,
  outcome,
  readOnly,
  issuesAt,
  onChange,
}: {
  spec: Spec;
  detail: TypeDetail;
  outcome: TypeOutcome;
  readOnly: boolean;
  issuesAt: (place: string) => Issue[];
  onChange: (spec: Spec) => void;
}) {
  const seo = (key: 'title' | 'description', value: string): void => {
    const { [key]: _, ...rest } = spec.seo;
    onChange({ ...spec, seo: value === '' ? rest : { ...rest, [key]: value } });
  };
  return (
    <>
      {!readOnly && (
        <CopyFrom
          what="SEO rules"
          own={detail.spec.key}
          types={detail.types}
          onPick={(other) => onChange({ ...spec, seo: other.seo })}
        />
      )}
      <Line label="Title" htmlFor="seo-title">
        <PatternInput
          id="seo-title"
          value={spec.seo.title ?? ''}
          placeholder={`{${spec.naming}}`}
          readOnly={readOnly}
          issues={issuesAt('seo/title')}
          result={outcome.title}
          onChange={(v) => seo('title', v)}
        />
      </Line>
      <Line label="Description" htmlFor="seo-description">
        <PatternInput
          id="seo-description"
          value={spec.seo.description ?? ''}
          placeholder={spec.summary ? `{${spec.summary}}` : 'the first paragraph'}
          readOnly={readOnly}
          issues={issuesAt('seo/description')}
          result={outcome.description ?? <span className="text-muted">none</span>}
          onChange={(v) => seo('description', v)}
        />
      </Line>
      <Line label="Search engines" htmlFor="seo-index">
        <select
          id="seo-index"
          className="control"
          disabled={readOnly}
          value={spec.seo.index === false ? 'no' : 'yes'}
          onChange={(e) =>
            onChange({ ...spec, seo: { ...spec.seo, index: e.target.value === 'yes' } })
          }
        >
          <option value="yes">may list these pages</option>
          <option value="no">may not list these pages</option>
        </select>
      </Line>
    </>
  );
}
