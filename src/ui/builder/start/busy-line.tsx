/** Long work, how much of it is done (0 to 1; null where that is not known), and how it is ended. */
export function BusyLine({
  words,
  part,
  cancel,
}: {
  words: string;
  part: number | null;
  cancel: (() => void) | null;
}) {
  return (
    <div className="mt-2 flex items-center gap-3" role="status">
      <progress
        className="w-[160px]"
        aria-label={words}
        {...(part === null ? {} : { value: part })}
      />
      <span className="min-w-0 flex-1 break-words">{words}</span>
      {cancel && (
        <button type="button" className="button" onClick={cancel}>
          Cancel
        </button>
      )}
    </div>
  );
}
