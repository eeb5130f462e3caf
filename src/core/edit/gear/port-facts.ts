import * as z from 'zod';
import { kinds, operation, fieldName, wireText } from '../../plan';
import { portList } from './ports';
import { portsTitle } from '../../model/wiring';

/** What a port is, beside what it carries: the same for many ports at once. */
const factsSchema = z
  .strictObject(kinds.port.fields)
  .pick({
    media: true,
    speed: true,
    poeClass: true,
    optic: true,
    defective: true,
    setsItself: true,
    enabled: true,
    exposed: true,
    accepts: true,
    ingressFilter: true,
    pvid: true,
    label: true,
  })
  .partial();

export const setPortFacts = operation(
  'setPortFacts',
  z.strictObject({ ports: portList, set: factsSchema }),
  (draft, { ports: ids, set }) => {
    if (set.pvid != null) draft.need('vlan', set.pvid);
    const ports = ids.map((id) => draft.update('port', id, set));
    const fields = Object.entries(set).map(
      ([field, value]) => `${fieldName('port', field)} ${wireText(value)}`,
    );
    return `${portsTitle(draft.plan, ports)}: ${fields.join(', ')}`;
  },
);
