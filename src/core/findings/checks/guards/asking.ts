import { type Access, type Plan, type Port, derive } from '../../../plan';
import { accessAt, askingPorts } from '../../../model/guards';
import type { Report } from '../../finding';
import { portCheck } from './shared';

/** What the checks of ports that ask who is there have in common. */

export const nameOf = (plan: Plan, id: string): string => plan.device.get(id)!.name;
export const onAccess = ({ id }: Access) => ({ table: 'access' as const, id });
const askingIds = derive(
  (plan): ReadonlySet<string> => new Set(askingPorts(plan).map(({ port }) => port.id)),
);
/** A check that looks at the ports that ask one by one. */
export const askingCheck = (id: string, find: (plan: Plan, port: Port, access: Access) => Report | null) =>
  portCheck(id, askingIds, (plan, port) => find(plan, port, accessAt(plan, port.id)!));

/** What keeps nobody out cuts nobody off. */
export const keepsOut = ({ mode }: Access): boolean => mode !== 'watch';
