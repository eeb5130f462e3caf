import { flag, oneOf, ref, whole } from './fields';
import { kind } from './kind';
import { titleOfPort } from './port';

export const guards = ['none', 'root', 'bpdu', 'filter'] as const;

/** A port in a tree, where it differs from a port as it comes. Instance 0 is the common tree. */
export const stpPort = kind({
  word: 'tree setting of a port',
  about: 'a port in a tree: path cost, priority, edge, guard; instance 0 is the common tree',
  since: 5,
  was: { name: 'treePort', until: 5 },
  table: 'stp_port',
  indexes: { port: ({ port }) => port },
  fields: {
    port: ref('port', 'removed', 'port'),
    instance: whole('instance', 0, 4094, { column: 'instance_number' }),
    /** Null: by the speed of the link. */
    cost: whole('path cost', 1, 200_000_000, { column: 'path_cost' }).nullable(),
    /** Multiples of 16. */
    priority: whole('priority', 0, 255, { said: 'The port priority' }),
    /** Forwards at once, as only end devices are expected there. Counts in the common tree. */
    edge: flag('edge port'),
    guard: oneOf('guard', guards, { column: 'guard_kind' }),
  },
  title: ({ port, instance }, plan) => {
    const at = plan.port!.get(port) as Parameters<typeof titleOfPort>[1] | undefined;
    return `${at ? titleOfPort(plan, at) : 'a port'} in tree ${instance}`;
  },
});
