import { ClockLink } from '../shell/clock-link.tsx';

/** A table of the design's parts, each leading to its screen. */
export function PartList({
  title,
  intro,
  columns,
  rows,
  empty,
}: {
  title: string;
  intro: string;
  columns: string[];
  rows: { href: string; name: string; what: string; set: string; note: string }[];
  empty: string;
}) {
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>{title}</h1>
      <p className="mb-3 text-muted">{intro}</p>
      <table className="table">
        <thead>
          <tr>
            {columns.map((c, i) => (
              <th key={i} scope="col">
                {c || <span className="sr-only">Size</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.href}>
              <td className="font-[550] whitespace-nowrap">
                <ClockLink href={row.href} className="text-ink hover:underline">
                  {row.name}
                </ClockLink>
              </td>
              <td className="text-muted">{row.what}</td>
              <td className="font-mono text-note break-all">{row.set}</td>
              <td className="text-right whitespace-nowrap text-muted">{row.note}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="border-t border-rule py-3 text-muted">{empty}</p>}
    </main>
  );
}
