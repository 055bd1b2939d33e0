import { useState } from 'react';

/** A link that signs somebody in, to be handed on. */
export function SignInLink({
  name,
  link,
  onDone,
}: {
  name: string;
  link: string;
  onDone: () => void;
}) {
  const [copied, setCopied] = useState(false);
  const copy = (): void =>
    void navigator.clipboard?.writeText(link).then(
      () => setCopied(true),
      () => undefined, // the words stand there to be copied by hand
    );
  return (
    <section aria-label={`Link for ${name}`} className="mt-2 border-l-[3px] border-spruce pl-3">
      <p>{`Give this link to ${name}, and to nobody else. It signs in once, within 15 minutes.`}</p>
      <div className="mt-1 flex max-w-[760px] gap-2">
        <input
          readOnly
          className="control font-mono !text-note"
          aria-label={`Sign-in link for ${name}`}
          value={link}
          onFocus={(e) => e.target.select()}
        />
        <button type="button" className="button shrink-0" onClick={copy}>
          {copied ? 'Copied' : 'Copy'}
        </button>
        <button type="button" className="button-quiet" onClick={onDone}>
          Done
        </button>
      </div>
    </section>
  );
}
