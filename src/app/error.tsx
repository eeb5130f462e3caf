'use client';

import Link from 'next/link';

/** A page that could not be shown. What was typed is kept by the browser and comes back with the page. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="p-6">
      <h1 className="tape">This page cannot be shown</h1>
      <p className="py-3">Something in it went wrong. What you typed is kept in this browser.</p>
      <p className="flex gap-3">
        <button type="button" className="button button-primary" onClick={reset}>
          Show it again
        </button>
        <button type="button" className="button" onClick={() => window.location.reload()}>
          Load it again
        </button>
        <Link className="button" href="/">
          All sites
        </Link>
      </p>
    </main>
  );
}
