import { day, flag, mac, note, oneOf, ref, someOf, text, whole } from './fields';
import { deviceName, kind } from './kind';

export const factoryStates = ['default-vlan', 'every-vlan', 'by-neighbour'] as const;
export const filters = ['none', 'stateless', 'stateful'] as const;
export const controlFrames = ['bpdu', 'eapol', 'lldp'] as const;
export const spanningTrees = ['none', 'rstp', 'rstp-per-vlan', 'mst', 'ring'] as const;

/**
 * The hardware of a device that has ports of its own to assign, and what is kept about it; one to a device. What a box can
 * do is recorded with it, because the frames follow what it does and not what was meant.
 */
export const box = kind({
  word: 'box',
  about:
    'the hardware of a device with ports: model, what it can do, where it stands, firmware, who keeps its login',
  since: 2,
  table: 'box',
  indexes: { device: ({ device }) => device },
  fields: {
    device: ref('device', 'removed', 'device'),
    model: text('model', 80),
    /** False: learns addresses without looking at tags and passes tagged frames unchanged. */
    vlanAware: flag('understands VLANs'),
    /** How many VLANs it can hold; null when nobody knows a limit. */
    vlanLimit: whole('VLAN limit', 1, 4094).nullable(),
    /** Can one port carry tagged VLANs and an untagged one together? */
    mixesTags: flag('mixes tagged and untagged on a port'),
    /** Control frames that a box without VLANs or spanning tree passes on. */
    passes: someOf('passes on', controlFrames),
    layer3: flag('routes'),
    filter: oneOf('filter', filters, { column: 'filter_kind' }),
    spanningTree: oneOf('spanning tree', spanningTrees),
    snooping: flag('can watch DHCP (snooping)'),
    dot1x: flag('can ask who plugs in (802.1X)'),
    /** What its ports are as it leaves the factory: untagged in VLAN 1, members of every VLAN, or by what is plugged in. */
    factory: oneOf('ports from the factory', factoryStates),
    /** For all powered ports together; null when it powers none. */
    poeBudget: whole('PoE budget', 1, 10_000, { said: 'The PoE budget in watts', unit: 'W' }).nullable(),
    powerFeeds: whole('power feeds', 1, 4),
    location: note('location', 80),
    mounting: note('rack or rail', 80),
    assetTag: note('asset tag', 40),
    serial: note('serial number', 60, { column: 'serial_number' }),
    revision: note('hardware revision', 40, { column: 'hardware_revision' }),
    baseMac: mac('base MAC').nullable(),
    firmware: note('firmware', 40, { said: 'The firmware version' }),
    supportedUntil: day('supported until').nullable(),
    licence: note('licence', 80),
    licenceUntil: day('licence until').nullable(),
    /** When the default login was changed, and where the new one is kept. Never the secret. */
    loginChanged: day('login changed').nullable(),
    loginKept: note('login kept', 80, { said: 'Where the login is kept' }),
    /** The device that configures this one; null when it is configured by itself. */
    controller: ref('device', 'cleared', 'controller').nullable(),
  },
  title: ({ device }, plan) => `box of ${deviceName(plan, device)}`,
});
