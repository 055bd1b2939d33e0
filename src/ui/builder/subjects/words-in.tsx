import { slugText } from '@/core/pattern/slug.ts';
import type { WordsByTag } from '@/core/design/subject-words.ts';
import { Line } from '@/ui/primitives/line.tsx';

type Said = WordsByTag[string];

/** What a further language says of a subject; where it says nothing, what is said otherwise. */
export function WordsIn({
  tag,
  label,
  words,
  readOnly,
  isWrong,
  onChange,
}: {
  tag: string;
  label: string;
  words: { name: string; slug: string; description: string; languages: WordsByTag };
  readOnly: boolean;
  isWrong: (place: string) => boolean;
  onChange: (said: Said) => void;
}) {
  const said = words.languages[tag] ?? {};
  const id = (of: string): string => `subject-${tag}-${of}`;
  const ownSlug = said.name ? slugText(said.name, tag) || words.slug : words.slug;
  const shared = (of: keyof Said) => ({
    id: id(of),
    lang: tag,
    value: said[of] ?? '',
    readOnly,
    onChange: (e: { target: { value: string } }) => onChange({ ...said, [of]: e.target.value }),
  });
  return (
    <fieldset className="mt-4 border-t border-line pt-3">
      <legend className="pe-2 font-medium">{label}</legend>
      <Line label="Name" htmlFor={id('name')}>
        <input className="control" maxLength={200} placeholder={words.name} {...shared('name')} />
      </Line>
      <Line label="In addresses" htmlFor={id('slug')}>
        <input
          className="control font-mono text-note"
          maxLength={120}
          placeholder={ownSlug}
          aria-invalid={isWrong('slug')}
          {...shared('slug')}
        />
      </Line>
      <Line label="Description" htmlFor={id('description')}>
        <textarea
          className="control min-h-20"
          maxLength={10_000}
          placeholder={words.description}
          {...shared('description')}
        />
      </Line>
    </fieldset>
  );
}

/** What is said in fact: nothing blank, and nothing of languages that say nothing. */
export function saidBy(languages: WordsByTag): WordsByTag {
  const lean = Object.entries(languages).map(([tag, said]) => {
    const filled = Object.entries(said).filter(([, text]) => text.trim() !== '');
    return [tag, Object.fromEntries(filled)] as const;
  });
  return Object.fromEntries(lean.filter(([, said]) => Object.keys(said).length > 0));
}
