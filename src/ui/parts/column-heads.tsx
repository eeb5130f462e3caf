/** The head of a ruled table. */
export function ColumnHeads({ columns, className = '' }: { columns: readonly string[]; className?: string }) {
  return (
    <thead className={className}>
      <tr>
        {columns.map((head) => (
          <th key={head} scope="col">
            {head}
          </th>
        ))}
      </tr>
    </thead>
  );
}
