import type { TemplateDetail } from '@/server/queries/template.ts';
import { command } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import type { Attempts } from '../use-attempts.ts';

/** Has a template chosen for all of its type, or a frame for the site, on the bench. */
export function ChooseIt({
  detail: { spec, choosing },
  attempt,
}: {
  detail: TemplateDetail;
  attempt: Attempts['attempt'];
}) {
  if (choosing.length === 0) return null;
  const here = `/build/templates/${spec.key}`;
  const choose = (): Promise<boolean> =>
    attempt(
      () => command('editDesign', { steps: choosing }),
      toldOnBench(attempt, { to: here, from: here }),
    );
  return (
    <button type="button" className="button-quiet" onClick={() => void choose()}>
      Choose it
    </button>
  );
}
