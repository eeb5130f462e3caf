/** Something to take away or to bring in, with what it is. */
export function Item({ what, about, children }: { what: string; about: string; children: React.ReactNode }) {
  return (
    <li className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
      <span className="min-w-[220px] flex-1">
        {what}
        <span className="block text-[14px] text-muted">{about}</span>
      </span>
      {children}
    </li>
  );
}
