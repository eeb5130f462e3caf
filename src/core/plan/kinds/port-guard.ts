import { flag, oneOf, ref, whole } from './fields';
import { kind } from './kind';
import { titleOfPort } from './port';

/** What a port does with one MAC address too many. */
export const overLimit = ['drop', 'tell', 'shut'] as const;

/** What a port is trusted with and what it is held to, where it differs from a port as it comes. One to a port. */
export const portGuard = kind({
  word: 'guard of a port',
  about:
    'what a port is trusted with (answers of DHCP, ARP, routers), how much it may send, how many MAC addresses',
  since: 9,
  table: 'port_guard',
  indexes: { port: ({ port }) => port },
  fields: {
    port: ref('port', 'removed', 'port'),
    trustsDhcp: flag('trusted for DHCP'),
    trustsArp: flag('trusted for ARP'),
    trustsRouters: flag('trusted for routers'),
    dhcpRate: whole('DHCP rate', 1, 10_000, { unit: 'per s' }).nullable(),
    arpRate: whole('ARP rate', 1, 10_000, { unit: 'per s' }).nullable(),
    /** Null: as many as come. */
    macLimit: whole('MAC limit', 1, 16_000, { said: 'The limit of MAC addresses' }).nullable(),
    /** Keeps those it learned first, also over a restart. */
    macSticky: flag('keeps the first it learned'),
    macAction: oneOf('one too many', overLimit),
    /** Broadcasts, in per cent of the port’s speed. */
    storm: whole('storm limit', 1, 100, { said: 'The storm limit', unit: '%' }).nullable(),
    /** How it asks who is plugged in; null: it asks nobody. */
    access: ref('access', 'cleared', 'way in', { edited: true, since: 10 }).nullable().default(null),
  },
  title: ({ port }, plan) => {
    const at = plan.port!.get(port) as Parameters<typeof titleOfPort>[1] | undefined;
    return `guard of ${at ? titleOfPort(plan, at) : 'a port'}`;
  },
});
