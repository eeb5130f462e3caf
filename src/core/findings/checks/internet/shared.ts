import { type Plan, type Forward, type Uplink, portsText, type Remedy } from '../../../plan';
import { listenersOf, protocolsMeet, targetOf } from '../../../model/uplink';
import type { SiteCheck } from '../../finding';

/** What the checks of the Internet side have in common. */

export const internetCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'internet',
  scope: 'site',
  find,
});

export const onUplink = ({ id }: Uplink) => ({ table: 'uplink' as const, id });
export const onForward = ({ id }: Forward) => ({ table: 'forward' as const, id });
export const forwardTitle = (plan: Plan, forward: Forward): string =>
  `${portsText(forward.protocol, forward.from, forward.to)} to ${targetOf(plan, forward).name}`;

/** Of what the target lists, is anything where the forward leads? Null where it lists nothing. */
export function isListenedTo(plan: Plan, forward: Forward): boolean | null {
  const listed = listenersOf(plan, targetOf(plan, forward).id);
  const last = forward.inside + forward.to - forward.from;
  return listed.length === 0
    ? null
    : listed.some(
        ({ port, protocol }) =>
          protocolsMeet(protocol, forward.protocol) && port >= forward.inside && port <= last,
      );
}

export const removalOf = (forward: Forward): Remedy => ({
  label: 'Remove the forward',
  operation: 'removeForward',
  input: { forward: forward.id },
});

/** Sets one field, as a person would. */
export const setField = (
  label: string,
  table: 'uplink' | 'forward' | 'translation',
  id: string,
  field: string,
  value: unknown,
  seen: unknown,
): Remedy => ({
  label,
  operation: 'edit',
  input: { table, id, set: { [field]: value }, seen: { [field]: seen } },
});
