import type { Plan } from '../../plan';
import { stateOf } from '../frames';
import { routersIn } from '../../model/routing';
import { joinedIn } from '../../model/switching';
import type { Asking } from './ask';

/** Whether a question asked of a plan has the same answer in one in which ports are off: where that is certain, it is not asked again. */

/** `lost`: the ports that are off in `broken`, which is `plan` in everything else. False also means: not known. */
export function isAnsweredAlike(
  plan: Plan,
  { question, answer }: Asking,
  broken: Plan,
  lost: ReadonlySet<string>,
): boolean {
  // Who is plugged into a port is there only by what that port does; a router without ports may take another way.
  if (question.fromPort !== null || answer.works === null || !answer.wires.every(({ sure }) => sure))
    return false;
  for (const id of lost) if (routersIn(broken).has(plan.port.get(id)!.device)) return false;
  // Somebody who decides against it does so still, should it get there.
  if (!answer.delivered) return true;
  const joined = joinedIn(broken);
  if (!joined || !joinedIn(plan)) return false;
  return answer.wires.every(({ from, vlan, to, listens }) => {
    const [a, b] = [stateOf(broken, from, vlan), stateOf(broken, to, listens)];
    return a !== null && b !== null && joined.together(a, b);
  });
}
