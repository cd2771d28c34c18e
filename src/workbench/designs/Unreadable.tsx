import Link from 'next/link';

/** Shown where nothing of a design can be read: what is stored can be taken out. */
export function Unreadable({
  id,
  message,
  details,
}: {
  readonly id: string;
  readonly message: string;
  readonly details: readonly string[];
}) {
  return (
    <main style={{ padding: '18vh 24px', maxWidth: '64ch', margin: '0 auto' }}>
      <h1>This design cannot be opened</h1>
      <p>{message} The other designs are not affected.</p>
      {details.map((detail) => (
        <p key={detail} style={{ color: 'var(--ink-soft)', overflowWrap: 'anywhere' }}>
          {detail.slice(0, 400)}
        </p>
      ))}
      <p>
        <a href={`/api/designs/${encodeURIComponent(id)}/export?as=stored`} style={{ color: 'var(--accent)' }}>
          Save what is stored
        </a>
      </p>
      <p>
        <Link href="/" style={{ color: 'var(--accent)' }}>
          To the list of designs
        </Link>
      </p>
    </main>
  );
}
