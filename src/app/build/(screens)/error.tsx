'use client';

export default function ScreenError({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="p-6">
      <h1>This screen could not be shown</h1>
      <p className="mt-2 text-muted">
        A fault in the program stopped it; the server’s log says where. Nothing you saved is lost.
      </p>
      <button type="button" className="button mt-4" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
