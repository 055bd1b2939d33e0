'use client';

import { type CSSProperties, type ReactNode, useEffect, useState } from 'react';

const STANCES = {
  settings: ['Settings wide', '3fr', '2fr'],
  even: ['Even', '1fr', '1fr'],
  outcome: ['Outcome wide', '2fr', '3fr'],
} as const;
type Stance = keyof typeof STANCES;

/** The work area: settings on paper at the left, the outcome on white at the right. */
export function Panes({
  title,
  lead,
  actions,
  problem = null,
  settings,
  foot,
  outcome,
}: {
  title: ReactNode;
  lead?: ReactNode;
  actions?: ReactNode;
  /** What of the address bar cannot be shown, in words. */
  problem?: string | null;
  settings: ReactNode;
  /** What comes and goes while somebody writes: it stands below, and moves nothing. */
  foot?: ReactNode;
  outcome: ReactNode;
}) {
  const { stance, choose } = useStance();
  const [, left, right] = STANCES[stance];
  return (
    <main
      className="panes"
      style={{ '--panes': `minmax(0, ${left}) minmax(0, ${right})` } as CSSProperties}
    >
      <section
        aria-label="Settings"
        data-area
        tabIndex={-1}
        className="flex min-h-0 scroll-pt-20 scroll-pb-32 flex-col overflow-auto"
      >
        <div className="sticky top-0 z-20 flex flex-wrap items-start justify-between gap-x-4 gap-y-1 bg-paper px-6 pt-4 pb-3">
          <h1 className="min-w-[160px] flex-1 break-words">{title}</h1>
          {actions}
          {lead && <div className="w-full text-muted">{lead}</div>}
        </div>
        <div className="px-6 pb-10">
          {problem !== null && (
            <p role="status" className="mb-3 text-amber-text">
              {problem}
            </p>
          )}
          {settings}
        </div>
        {foot && <div className="pane-foot">{foot}</div>}
      </section>
      <section
        aria-label="Outcome"
        data-area
        tabIndex={-1}
        className="relative flex min-h-0 flex-col border-l border-rule bg-white"
      >
        <StanceChoice stance={stance} onChoose={choose} />
        {outcome}
      </section>
    </main>
  );
}

/** How wide the panes are, as somebody chose it last in this browser. */
function useStance() {
  const [stance, setStance] = useState<Stance>('even');
  useEffect(() => {
    const kept = localStorage.getItem('bontel.stance');
    if (kept !== null && Object.hasOwn(STANCES, kept)) setStance(kept as Stance);
  }, []);
  const choose = (next: Stance): void => {
    setStance(next);
    localStorage.setItem('bontel.stance', next);
  };
  return { stance, choose };
}

function StanceChoice({
  stance,
  onChoose,
}: {
  stance: Stance;
  onChoose: (stance: Stance) => void;
}) {
  return (
    <div
      role="group"
      aria-label="Width of the panes"
      className="absolute right-3 bottom-2 z-10 flex rounded-md border border-rule bg-white text-note"
    >
      {(Object.keys(STANCES) as Stance[]).map((key) => (
        <button
          key={key}
          type="button"
          aria-pressed={stance === key}
          onClick={() => onChoose(key)}
          className="h-6 px-2 text-muted aria-pressed:font-semibold aria-pressed:text-ink"
        >
          {STANCES[key][0]}
        </button>
      ))}
    </div>
  );
}
