/** Why something was refused, beside where it was typed; nothing while there is no reason. */
export function Problem({ text, className = '' }: { text: string; className?: string }) {
  if (!text) return null;
  return (
    <p role="alert" className={`border-l-4 border-stop px-2 text-stop ${className}`}>
      {text}
    </p>
  );
}
