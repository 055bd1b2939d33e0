import { Line } from '@/ui/primitives/line.tsx';

/** Takes the whole site home as the files of its folder. */
export function SaveSite() {
  return (
    <section>
      <h2 className="mt-3">The whole site</h2>
      <Line
        label="As files"
        help="Design, entries with their past and plans, pictures and the bench, as plain files in a .zip that load again. “bontel save FOLDER” writes the same into a folder."
      >
        <a className="button inline-flex items-center" href="/api/saved-site" download>
          Save the site as files
        </a>
      </Line>
    </section>
  );
}
