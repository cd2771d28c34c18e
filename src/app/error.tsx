'use client';
import Link from 'next/link';

/** Where a whole page fails: what was not sent is kept in the browser and offered again. */
export default function Failed({ reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <main style={{ padding: '18vh 24px', textAlign: 'center' }}>
      <h1>This page has failed</h1>
      <p>
        Changes that the server had not taken yet are kept in this browser: they are offered when the design is opened
        again.
      </p>
      <p>
        <button type="button" onClick={reset}>
          Try again
        </button>
      </p>
      <p>
        <Link href="/" style={{ color: 'var(--accent)' }}>
          To the list of designs
        </Link>
      </p>
    </main>
  );
}
