/**
 * Moves one of a list up or down. At either end there is nothing to move to; the button stays, and
 * keeps the focus.
 */
export function Moves({
  of,
  isFirst,
  isLast,
  onMove,
}: {
  of: string;
  isFirst: boolean;
  isLast: boolean;
  onMove: (by: -1 | 1) => void;
}) {
  const moves = [
    { words: 'Up', by: -1, isEnd: isFirst },
    { words: 'Down', by: 1, isEnd: isLast },
  ] as const;
  return (
    <span className="flex">
      {moves.map(({ words, by, isEnd }) => (
        <button
          key={words}
          type="button"
          className="button-quiet !px-1.5"
          aria-label={`Move ${of} ${words.toLowerCase()}`}
          aria-disabled={isEnd}
          onClick={() => !isEnd && onMove(by)}
        >
          {words}
        </button>
      ))}
    </span>
  );
}
