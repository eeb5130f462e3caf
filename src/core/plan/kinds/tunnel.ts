import { flag, list, note, prefix, ref, text } from './fields';
import { kind } from './kind';

/** A way to the networks of another site through the Internet. Its keys are kept elsewhere. */
export const tunnel = kind({
  word: 'tunnel',
  about: 'a way to the networks of another site; its keys are kept elsewhere',
  since: 4,
  table: 'tunnel',
  uniqueName: true,
  fields: {
    device: ref('device', 'removed', 'device'),
    /** The uplink it is bound to; null for whichever is in use. */
    uplink: ref('uplink', 'cleared', 'uplink').nullable(),
    name: text('name', 40, { said: 'The tunnel’s name' }),
    /** The other end: a name or an address. */
    peer: note('peer', 120, { said: 'The other end' }),
    /** Does this side open it? Then it works from behind any translation. */
    initiates: flag('opens the tunnel'),
    enabled: flag('enabled'),
    /** The networks at the other end. */
    remote: list('networks at the other end', 'tunnel_remote', prefix('prefix')),
  },
  title: ({ name }) => `tunnel ${name}`,
});
