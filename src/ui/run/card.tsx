import type { ReactNode } from 'react';

/** What is to do now, to be read at arm's length. */
export function Card({ title, name, children }: { title: string; name: string; children: ReactNode }) {
  return (
    <section aria-label="What to do now" className="mt-2 border-[3px] border-ink bg-paper">
      <h2 className="flex flex-wrap items-center gap-2 border-b-2 border-ink px-3 py-2">
        <span>{title}</span>
        <span className="tape text-[16px]">{name}</span>
      </h2>
      <div className="flex flex-col gap-3 p-3">{children}</div>
    </section>
  );
}
