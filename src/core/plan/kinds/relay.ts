import { ref, refs } from './fields';
import { kind } from './kind';
import { networkInterface } from './interface';

/** A router’s interface passes DHCP discovers on to servers in other networks (RFC 1542 section 4). One to an interface. */
export const relay = kind({
  word: 'relay',
  about: 'a router’s interface that passes DHCP discovers on, and the servers it passes them to',
  since: 5,
  table: 'dhcp_relay',
  edited: false,
  fields: {
    interface: ref('interface', 'removed', 'interface'),
    /** The interfaces of the servers. */
    servers: refs('interface', 'dropped', 'servers', 'dhcp_relay_server'),
  },
  title: ({ interface: id }, plan) => {
    const item = plan.interface!.get(id) as Parameters<typeof networkInterface.title>[0] | undefined;
    return `relay of ${item ? networkInterface.title(item, plan) : 'an interface'}`;
  },
});
