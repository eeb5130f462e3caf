import * as z from 'zod';
import { code, flag, list, longText, note, oneOf, prefix, text, whole } from './fields';
import { kind } from './kind';

export const SITE_ID = 'site';
export const siteKinds = ['home', 'office', 'industrial'] as const;

/** The site itself and its habits. */
export const site = kind({
  word: 'site',
  about: 'exactly one: name, kind, address space, networks of others, the site’s habits; its id is `site`',
  since: 1,
  table: 'site_record',
  only: SITE_ID,
  fields: {
    name: text('name', 80, { said: 'The site’s name' }),
    kind: oneOf('kind', siteKinds),
    /** Prefixes this site may number its segments from. */
    space: list('address space', 'site_space', prefix('prefix')).min(
      1,
      'The address space is empty; name at least one prefix, like 192.168.0.0/16',
    ),
    /** Networks of others that this site must not collide with. */
    foreign: list(
      'foreign networks',
      'site_foreign',
      z.strictObject({ prefix: prefix('prefix'), why: note('reason', 120) }),
    ),
    /** Third octet equals VLAN id, or any free block. */
    numbering: oneOf('numbering', ['third-octet', 'free']),
    /** A /24 for each segment so that people can read it, or sized to need plus growth. */
    sizing: oneOf('subnet size', ['slash-24', 'need']),
    /** Where fixed addresses live: set on the device outside the pool, or reserved by MAC on the server. */
    fixed: oneOf('fixed addresses', ['outside-pool', 'reservation']),
    /** Does the DHCP server accept a reservation inside its pool? Servers differ. */
    reservationInPool: flag('reservation inside the pool'),
    /** Management in the default VLAN, or in a segment of its own. */
    management: oneOf('management', ['own-segment', 'default-vlan']),
    /** Host numbers 1…n of each subnet are for infrastructure; the next `fixedBand` for fixed addresses. */
    infrastructureBand: whole('infrastructure band', 0, 1000),
    fixedBand: whole('fixed band', 0, 60000),
    gatewayHabit: oneOf('gateway habit', ['first', 'last']),
    /** Tokens {code}, {kind}, {n} or {nn}: "{code}-{kind}-{nn}" gives cm-camera-07. */
    namingPattern: text('naming pattern', 60),
    /** The domain of segments that name none. */
    domain: note('domain', 120),
    /** True on a teaching or example site: documentation ranges are then allowed inside. */
    documentation: flag('documentation'),
    /** Whose rules of the air hold (ISO 3166-1 alpha-2); empty while nobody said, and then only what is allowed nearly everywhere. */
    country: code(
      'country',
      2,
      /^([A-Z]{2})?$/,
      'DE',
      'The country needs two capital letters, like DE, or nothing',
      { since: 8 },
    ).default(''),
    /** One name on all access points so that people roam, or one for each box so that one sees where one is. */
    wirelessNames: oneOf('names on the air', ['one', 'each'], { since: 8 }).default('one'),
    /** May channels be used on which radar goes before? */
    radarChannels: oneOf('radar channels', ['used', 'avoided'], { since: 8 }).default('used'),
    /** New boxes are set up on a table before they are mounted, or where they hang. */
    staging: oneOf('new boxes are set up', ['on-site', 'bench'], { since: 13 }).default('on-site'),
    /** Kept apart by VLANs and rules, not at all behind a good firewall, or by boxes of their own. */
    separation: oneOf('groups are kept apart', ['vlans', 'flat', 'separate'], {
      column: 'kept_apart',
      since: 14,
    }).default('vlans'),
    /** Who routes between segments. */
    routedBy: oneOf('routed by', ['gateway', 'layer3-switch'], { since: 14 }).default('gateway'),
    /** How the boxes of several places hang together. */
    backbone: oneOf('backbone', ['star', 'ring'], { since: 14 }).default('star'),
    /** Of ports, beyond what grows. */
    spare: whole('spare ports', 0, 300, { unit: '%', column: 'spare_ports', since: 14 }).default(15),
    /** Of what is to be connected, where a need does not say. */
    usualGrowth: whole('usual growth', 0, 1000, { unit: '%', since: 14 }).default(25),
    timeZone: text('time zone', 60),
    notes: longText('notes', 4000),
  },
  title: ({ name }) => name,
});
