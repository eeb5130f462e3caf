import { type FieldDifference, describeChange, type Change, type Plan } from '@/core/plan';

const words = { added: 'added', removed: 'removed', changed: '' } as const;
const SHOWN = 300;

/** What a change does, line by line: read before it is accepted. */
export function Differences({ plan, change }: { plan: Plan; change: Change }) {
  const lines = describeChange(plan, change);
  if (lines.length === 0) return <p>Nothing changes.</p>;
  return (
    <>
      <table className="schedule text-[14px]">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Field</th>
            <th scope="col">Before</th>
            <th scope="col">After</th>
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, SHOWN).map((line, i) => (
            <Line key={i} line={line} />
          ))}
        </tbody>
      </table>
      {lines.length > SHOWN && <p className="pt-2">and {lines.length - SHOWN} more lines</p>}
    </>
  );
}

function Line({ line }: { line: FieldDifference }) {
  return (
    <tr>
      <td>
        {line.what} {line.word && <span className="text-muted">({line.word})</span>}
      </td>
      <td>{line.kind === 'changed' ? line.field : <b>{words[line.kind]}</b>}</td>
      <td className="mono">{line.before}</td>
      <td className="mono">{line.after}</td>
    </tr>
  );
}
