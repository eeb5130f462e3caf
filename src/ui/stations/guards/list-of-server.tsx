'use client';

import { MOST_OCTETS, filterRules, octetsOf } from '@/core/formats';
import type { Plan } from '@/core/plan';
import { today } from '@/today';
import { Fold } from '../../parts/fold';

/** The list that comes with a server’s answer: what the rules let the segment do, held to at the port already. */
export function ListOfServer({ plan, vlan }: { plan: Plan; vlan: string }) {
  const lines = filterRules(plan, vlan, today());
  const octets = octetsOf(lines);
  const { name } = plan.vlan.get(vlan)!;
  const told = `${lines.length} lines, ${octets} octets`;
  return (
    <section aria-label={`What passes of ${name}`}>
      <Fold
        id="list-of-server"
        title="The port holds it to a list"
        told={`${told}, as the rules say of ${name}`}
      >
        <p className="py-1 text-muted">
          From the server, as the rules say of {name}: {told}. What no line names is dropped.
        </p>
        {octets > MOST_OCTETS && (
          <p className="text-stop">
            One answer of a server holds {MOST_OCTETS} octets (RFC 2865): make fewer rules of it, or leave the
            list to the router.
          </p>
        )}
        <ol className="mono list-decimal pl-10 text-[13px]">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
      </Fold>
    </section>
  );
}
