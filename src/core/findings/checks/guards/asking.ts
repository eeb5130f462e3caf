import type { Access, Plan } from '../../../plan';

/** What the checks of ports that ask who is there have in common. */

export const nameOf = (plan: Plan, id: string): string => plan.device.get(id)!.name;
export const onAccess = ({ id }: Access) => ({ table: 'access' as const, id });
/** What keeps nobody out cuts nobody off. */
export const keepsOut = ({ mode }: Access): boolean => mode !== 'watch';
