/** Stands in the place of a screen that whoever is signed in has no right to. */
export function NotYours({ title, words }: { title: string; words: string }) {
  return (
    <main data-area tabIndex={-1} className="px-6 py-4">
      <h1>{title}</h1>
      <p className="mt-2 text-muted">{words}</p>
    </main>
  );
}
