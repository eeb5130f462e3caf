import { flag, prefix, ref, whole } from './fields';
import { kind, nameOf } from './kind';

/** A provider’s box kept behind the site’s own gateway, because the telephones hang on it. */
export const voiceBox = kind({
  word: 'telephone box',
  about: 'a provider’s box kept behind the gateway for the telephones: tag, marking, queue, power',
  since: 4,
  table: 'voice_box',
  fields: {
    device: ref('device', 'removed', 'device'),
    uplink: ref('uplink', 'removed', 'uplink'),
    /** The network the box makes for itself; null when it makes none. */
    own: prefix('its own network').nullable(),
    /** Does the box look for the provider’s tag on its line, and does the inside port repeat it? */
    needsTag: flag('looks for the provider’s tag'),
    tagRepeated: flag('inside port repeats the tag'),
    /** The DSCP its packets are marked with on the way out (RFC 2474); voice is EF, 46 (RFC 3246). */
    dscp: whole('DSCP', 0, 63),
    firstInQueue: flag('first in the queue'),
    /** Do gateway and box run on when the mains fail? */
    backedUp: flag('runs on when the mains fail'),
  },
  title: ({ device }, plan) => `telephone box ${nameOf(plan, 'device', device, '')}`.trim(),
});
