import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="p-6">
      <h1 className="tape">Not here</h1>
      <p className="py-3">There is no such page or site; it may have been deleted.</p>
      <Link className="underline" href="/">
        All sites
      </Link>
    </main>
  );
}
