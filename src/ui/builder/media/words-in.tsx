import type { AboutMedia } from '@/core/design/values.ts';
import type { FurtherLanguage } from '@/server/queries/clock.ts';

/** What a further language says of a medium; where it says nothing, what is said otherwise. */
export function WordsIn({
  language: { tag, label },
  about: { alt, caption, decorative, languages },
  put,
  readOnly,
  isPicture,
}: {
  language: FurtherLanguage;
  about: AboutMedia;
  put: (change: Partial<AboutMedia>) => void;
  readOnly: boolean;
  isPicture: boolean;
}) {
  const said = languages[tag] ?? {};
  const say = (name: 'alt' | 'caption', text: string): void => {
    const { [name]: _, ...rest } = said;
    const words = text === '' ? rest : { ...rest, [name]: text };
    const { [tag]: __, ...others } = languages;
    put({ languages: Object.keys(words).length > 0 ? { ...others, [tag]: words } : others });
  };
  return (
    <>
      {isPicture && (
        <label className="block">
          <span className="text-muted">{`Alternative text, ${label}`}</span>
          <textarea
            className="control mt-1 h-16 w-full"
            lang={tag}
            maxLength={2000}
            placeholder={alt}
            value={said.alt ?? ''}
            disabled={readOnly || decorative}
            onChange={(e) => say('alt', e.target.value)}
          />
        </label>
      )}
      <label className="block">
        <span className="text-muted">{`Caption, ${label}`}</span>
        <input
          className="control mt-1"
          lang={tag}
          maxLength={2000}
          placeholder={caption}
          value={said.caption ?? ''}
          disabled={readOnly}
          onChange={(e) => say('caption', e.target.value)}
        />
      </label>
    </>
  );
}
