import Link from 'next/link';

export default function NotFound() {
  return (
    <main style={{ padding: '18vh 24px', textAlign: 'center' }}>
      <h1>There is no such design</h1>
      <p>It may have been deleted, or the address is not complete.</p>
      <Link href="/" style={{ color: 'var(--accent)' }}>
        To the list of designs
      </Link>
    </main>
  );
}
