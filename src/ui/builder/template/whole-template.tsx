import type { Step } from '@/core/design-edit/steps.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import { command } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import type { Attempts } from '../use-attempts.ts';

/**
 * Has a template chosen for all of its type, or a frame for the site; or takes it away, where nothing
 * has chosen it. Both on the bench.
 */
export function WholeTemplate({
  detail: { spec, choosing, removal },
  attempt,
}: {
  detail: TemplateDetail;
  attempt: Attempts['attempt'];
}) {
  const here = `/build/templates/${spec.key}`;
  const put = (steps: Step[], to: string): void =>
    void attempt(() => command('editDesign', { steps }), toldOnBench(attempt, { to, from: here }));
  return (
    <>
      {choosing.length > 0 && (
        <button type="button" className="button-quiet" onClick={() => put(choosing, here)}>
          Choose it
        </button>
      )}
      {removal && (
        <button
          type="button"
          className="button-quiet text-alarm"
          onClick={() => put([removal], '/build/templates')}
        >
          Take it away
        </button>
      )}
    </>
  );
}
