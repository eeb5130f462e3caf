import { Choice } from './choice';

const LEFT_OUT = '';

/** Which column of a table is what, to be put right: a column is one thing, and a thing is in one column. */
export function ColumnChoices<C extends string>({
  order,
  columns,
  onChoose,
}: {
  order: readonly (C | null)[];
  columns: readonly { readonly id: C; readonly title: string }[];
  onChoose: (order: readonly (C | null)[]) => void;
}) {
  const choose = (at: number, column: C | null) =>
    onChoose(order.map((other, i) => (i === at ? column : other === column ? null : other)));
  return (
    <span className="flex flex-wrap gap-2 pt-1">
      {order.map((column, i) => (
        <span key={i} className="w-[130px] text-[14px]">
          <Choice
            lined
            label={`Column ${i + 1}`}
            value={column ?? LEFT_OUT}
            options={[
              { value: LEFT_OUT, label: `${i + 1}: left out` },
              ...columns.map(({ id, title }) => ({ value: id, label: `${i + 1}: ${title}` })),
            ]}
            onChoose={(value) => choose(i, value === LEFT_OUT ? null : (value as C))}
          />
        </span>
      ))}
    </span>
  );
}
