import type { Plan, Port, Remedy } from '../../../plan';
import type { PortCheck, Report, SiteCheck } from '../../finding';

/** What the checks of guards have in common. */

export const guardCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'guards',
  scope: 'site',
  find,
});

/** A check that looks at ports one by one: what it says of one stands until something it read of it changes. */
export function portCheck(
  id: string,
  ports: PortCheck['ports'],
  find: (plan: Plan, port: Port) => Report | null,
): PortCheck {
  return {
    id,
    station: 'guards',
    scope: 'port',
    ports,
    *find(plan, port) {
      const report = find(plan, port);
      if (report) yield report;
    },
  };
}

/** The boxes that guard something, each once. */
export const guarding = (plan: Plan): readonly string[] => [
  ...new Set([...plan.vlanGuard.values()].map(({ device }) => device)),
];

/** Sets what a port is trusted with or held to. */
export const holding = (label: string, port: string, set: Readonly<Record<string, unknown>>): Remedy => ({
  label,
  operation: 'setPortGuards',
  input: { ports: [port], set },
});

/** Three names, and how many more. */
export function someOf(names: readonly string[]): string {
  const all = [...new Set(names)];
  return all.length <= 4 ? all.join(', ') : `${all.slice(0, 3).join(', ')} and ${all.length - 3} more`;
}
