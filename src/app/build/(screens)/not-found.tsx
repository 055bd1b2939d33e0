import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="p-6">
      <h1>There is no such screen</h1>
      <p className="mt-2 text-muted">
        What it showed may have been renamed, or is not there at the instant the clock shows.{' '}
        <Link href="/build">Go to Today</Link>, or set the clock to now.
      </p>
    </main>
  );
}
