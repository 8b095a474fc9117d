import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="message">
      <h1>This scene is not here</h1>
      <p>It was deleted, or the address has a slip in it.</p>
      <Link href="/">Back to your scenes</Link>
    </main>
  );
}
