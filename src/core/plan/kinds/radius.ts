import { day, note, rank, ref, whole } from './fields';
import { deviceName, kind } from './kind';

/** A server that boxes ask whom to let in (RFC 2865). Its shared secret is never kept. */
export const radius = kind({
  word: 'authentication server',
  about: 'a RADIUS server: address, ports, how long it is waited for, group; never its secret',
  since: 10,
  table: 'radius',
  fields: {
    address: ref('address', 'removed', 'address'),
    group: note('group', 40, { column: 'server_group' }),
    /** As the boxes have it: 1812, on old gear 1645. */
    port: whole('port', 1, 65_535),
    /** As the boxes have it: 1813, on old gear 1646. */
    accounting: whole('accounting port', 1, 65_535),
    /** Where boxes listen for a change of authorisation (RFC 5176); null: it sends none. */
    change: whole('port for changes', 1, 65_535, { column: 'change_port' }).nullable(),
    /** Seconds that an answer is waited for, and how often it is asked. */
    timeout: whole('timeout', 1, 60, { unit: 's', column: 'wait_seconds' }),
    tries: whole('tries', 1, 10),
    /** Minutes that it is not asked after it was silent. */
    dead: whole('not asked for', 0, 1440, { unit: 'min', column: 'dead_minutes' }),
    /** Whom boxes ask about to see whether it answers; empty: nobody. */
    tester: note('test user', 40),
    secretSet: day('secret set').nullable(),
    secretKept: note('secret kept', 80, { said: 'Where the secret is kept' }),
    rank: rank(),
  },
  title: ({ address }, plan) => {
    const at = plan.address!.get(address) as { interface: string } | undefined;
    const card = at && (plan.interface!.get(at.interface) as { device: string } | undefined);
    return `authentication server ${deviceName(plan, card?.device)}`;
  },
});
