import { flag, oneOf, rank, refs, text } from './fields';
import { kind } from './kind';

/** Things that are treated alike: every VLAN, every uplink and tunnel and the gateway itself belongs to exactly one zone. */
export const zone = kind({
  word: 'zone',
  about: 'what is treated alike: segments, uplinks, the gateway itself; may its members talk, may it manage',
  since: 3,
  table: 'zone',
  uniqueName: true,
  fields: {
    name: text('name', 40, { said: 'The zone’s name' }),
    rank: rank(),
    vlans: refs('vlan', 'dropped', 'segments', 'zone_vlan'),
    uplinks: refs('uplink', 'dropped', 'uplinks', 'zone_uplink'),
    tunnels: refs('tunnel', 'dropped', 'tunnels', 'zone_tunnel', { since: 4 }).default([]),
    /** The gateway itself: its pages, its DHCP and DNS. */
    gateway: flag('gateway'),
    /** May its members talk among themselves, where a box sees them do so? */
    inside: oneOf('its members', ['allow', 'deny']),
    /** May the gateway’s own pages be opened from here? */
    manages: flag('the gateway’s pages may be opened from here'),
  },
  title: ({ name }) => name,
});
