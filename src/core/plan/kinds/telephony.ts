import { code, oneOf, ref, whole } from './fields';
import { kind, nameOf } from './kind';

/** The DHCP option that names the boot server: 66 by a name, an address or a URL (RFC 2132), 150 by addresses (RFC 5859). */
export const bootOptions = ['66', '150'] as const;

/** A name or password in front of an @ has no place in a plan. */
const PLACE = /^(?!.*@)[!-~]*$/;
const place = (label: string, example: string) =>
  code(
    label,
    200,
    PLACE,
    example,
    `“${label}” takes a host, an address or a URL in ASCII, without a space and without a name or password in front of @, like ${example}`,
  );

/** What the telephones of a segment are told: by LLDP-MED (ANSI/TIA-1057) at the port, by DHCP with the lease. */
export const telephony = kind({
  word: 'telephone settings',
  about: 'what the telephones of a segment are told: priority and marks, boot server, where they register',
  since: 10,
  table: 'telephony',
  indexes: { vlan: ({ vlan }) => vlan },
  fields: {
    vlan: ref('vlan', 'removed', 'segment'),
    /** Empty: none. */
    boot: place('boot server', 'http://boot.example.net/'),
    bootOption: oneOf('told by option', bootOptions, { column: 'boot_option' }),
    /** A host, with a port where it is another than 5060 (RFC 3261); empty: not recorded. */
    registrar: place('registers at', 'sip.example.net'),
    /** Of IEEE 802.1Q clause 6.9.3; voice is 5 (annex I). */
    priority: whole('priority in the tag', 0, 7, { column: 'tag_priority' }),
    /** Of RFC 2474: voice is EF 46 (RFC 3246), signalling CS5 40 (RFC 4594). */
    dscp: whole('DSCP of voice', 0, 63, { column: 'voice_dscp' }),
    signalling: whole('DSCP of signalling', 0, 63, { column: 'signalling_dscp' }),
  },
  title: ({ vlan }, plan) => `telephones of ${nameOf(plan, 'vlan', vlan, 'a segment')}`,
});
