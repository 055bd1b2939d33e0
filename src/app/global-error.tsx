'use client';

import './globals.css';

export default function GlobalError({ reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main className="p-6">
          <h1>The builder could not be shown</h1>
          <p className="mt-2 text-muted">
            A fault in the program stopped it; the server’s log says where. Nothing you saved is
            lost, and the public site goes on.
          </p>
          <div className="mt-4 flex items-center gap-3">
            <button type="button" className="button" onClick={reset}>
              Try again
            </button>
            {/* A plain link: the whole document is to be loaded anew. */}
            {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
            <a href="/build">Go to Today</a>
          </div>
        </main>
      </body>
    </html>
  );
}
