'use client';

import { useRef, useState } from 'react';
import { Line } from '@/ui/primitives/line.tsx';

const ARCHIVE = '/api/saved-site';

/** Why the files cannot be had, by the status of the answer. */
const WHY: Record<number, string> = {
  401: 'You are signed out. Sign in again, then save the site.',
  503: 'The site is being saved already. Try again when that has finished.',
};

/** Takes the whole site home as the files of its folder. */
export function SaveSite() {
  const [problem, setProblem] = useState<string | null>(null);
  const link = useRef<HTMLAnchorElement>(null);
  const save = async (): Promise<void> => {
    const problem = await whyNot();
    setProblem(problem);
    if (problem === null) link.current!.click();
  };
  return (
    <section>
      <h2 className="mt-3">The whole site</h2>
      <Line
        label="As files"
        help="Design, entries with their past and plans, pictures and the bench, as plain files in a .zip that load again. “bontel save FOLDER” writes the same into a folder."
      >
        <button type="button" className="button" onClick={() => void save()}>
          Save the site as files
        </button>
        <a ref={link} href={ARCHIVE} download hidden>
          The files
        </a>
        {problem !== null && (
          <p role="alert" className="mt-1 text-alarm">
            {problem}
          </p>
        )}
      </Line>
    </section>
  );
}

/** Why the files cannot be had now; null where they can. */
async function whyNot(): Promise<string | null> {
  try {
    const { ok, status } = await fetch(ARCHIVE, { method: 'HEAD' });
    return ok ? null : (WHY[status] ?? 'The site cannot be saved now. Try again in a moment.');
  } catch {
    return 'The server cannot be reached. Try again in a moment.';
  }
}
