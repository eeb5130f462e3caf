import type { ReactNode } from 'react';

/** Why something was refused, beside where it was typed; nothing while there is no reason. */
export function Problem({
  text,
  className = '',
  id,
  children,
}: {
  text: string;
  className?: string;
  id?: string;
  /** What mends it. */
  children?: ReactNode;
}) {
  if (!text) return null;
  return (
    <p id={id} role="alert" className={`border-l-4 border-stop px-2 text-stop ${className}`}>
      {text} {children}
    </p>
  );
}
