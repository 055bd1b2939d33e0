/**
 * What a search engine is told, laid out to be read: title, address, description, and the share
 * picture.
 */
export function Snippet({
  title,
  description,
  url,
  picture,
}: {
  title: string;
  description: string | null;
  url: string | null;
  picture?: string | null;
}) {
  return (
    <dl className="grid grid-cols-[96px_minmax(0,1fr)] gap-x-4 gap-y-2">
      <dt className="text-muted">Title</dt>
      <dd className="text-section font-semibold break-words">
        {title || <span className="text-alarm">None: the naming field is blank.</span>}
      </dd>
      <dt className="text-muted">Address</dt>
      <dd className="break-all">{url ?? <span className="text-muted">none</span>}</dd>
      <dt className="text-muted">Description</dt>
      <dd className="break-words">
        {description ?? (
          <span className="text-muted">
            None: the rule, the summary and the first paragraph are blank.
          </span>
        )}
      </dd>
      <dt className="text-muted">Length</dt>
      <dd className="text-muted">{`title ${[...title].length}, description ${[...(description ?? '')].length} characters`}</dd>
      {picture && (
        <>
          <dt className="text-muted">Share picture</dt>
          <dd>
            {/* eslint-disable-next-line @next/next/no-img-element -- served by delivery, at its own widths */}
            <img src={picture} alt="" width={240} className="border border-rule" />
          </dd>
        </>
      )}
    </dl>
  );
}
