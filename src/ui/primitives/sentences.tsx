/** Sentences one below the other, as a question lists what it is about. */
export function Sentences({ lines }: { lines: readonly string[] }) {
  return (
    <ul className="mt-2 max-h-[50vh] list-disc overflow-auto pl-5">
      {lines.map((line, i) => (
        <li key={i} className="break-words">
          {line}
        </li>
      ))}
    </ul>
  );
}
