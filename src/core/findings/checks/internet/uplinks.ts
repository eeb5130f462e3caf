import { formatAddress, contains, formatPrefix } from '../../../address';
import { portTitle, groupBy } from '../../../plan';
import { linksOf, portsOf } from '../../../model/wiring';
import { outsideOf, kindOfAddress, translatorsOf, usualMtu, uplinksOf } from '../../../model/uplink';
import { internetCheck, onUplink, setField } from './shared';

/** How a gateway is joined to its providers. */

const unrecorded = internetCheck('uplink-unrecorded', function* (plan) {
  const used = new Set([...plan.uplink.values()].map(({ port }) => port));
  // By the few boxes rather than by all devices: this runs at every edit of an address.
  for (const box of plan.box.values()) {
    const device = plan.device.get(box.device)!;
    if (device.kind !== 'gateway') continue;
    for (const port of portsOf(plan, device.id)) {
      if (port.role !== 'uplink' || port.defective || !port.enabled || used.has(port.id)) continue;
      // A port that faces a provider and leads nowhere yet is kept for later.
      if (used.size > 0 && !linksOf(plan).has(port.id)) continue;
      yield {
        severity: 'note',
        on: { table: 'port', id: port.id },
        what: `Nothing is recorded of the uplink at ${portTitle(plan, port)}`,
        because:
          'The port faces a provider. How it gets its address decides what can be reached from outside.',
        remedies: [
          {
            label: 'Record an uplink there',
            operation: 'addUplink',
            input: { device: device.id, port: port.id },
          },
        ],
      };
    }
  }
});

const notFacing = internetCheck('uplink-port', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    const port = uplink.port === null ? undefined : plan.port.get(uplink.port);
    if (!port) {
      yield {
        severity: 'note',
        on: onUplink(uplink),
        what: `${uplink.name} has no port`,
        because: `Nobody recorded which port of ${plan.device.get(uplink.device)!.name} the provider’s cable belongs in.`,
      };
      continue;
    }
    const parts = [
      ...(port.role === 'uplink' ? [] : ['carries segments of this site instead of facing the provider']),
      ...(port.defective ? ['is marked defective'] : []),
      ...(port.enabled ? [] : ['is switched off']),
    ];
    if (parts.length === 0) continue;
    const leads = linksOf(plan).has(port.id);
    yield {
      severity: 'stop',
      on: onUplink(uplink),
      also: [{ table: 'port', id: port.id }],
      what: `${uplink.name} cannot work at ${portTitle(plan, port)}`,
      because: `The port ${parts.join(' and ')}.`,
      remedies:
        parts.length === 1 && port.role !== 'uplink' && !leads
          ? [
              {
                label: `Let ${portTitle(plan, port)} face the provider`,
                operation: 'assignPorts',
                input: { ports: [port.id], role: 'uplink' },
              },
            ]
          : [],
    };
  }
});

const portShared = internetCheck('uplink-port-shared', function* (plan) {
  const at = groupBy(
    uplinksOf(plan).filter(({ port }) => port !== null),
    ({ port, providerVlan }) => `${port} ${providerVlan}`,
  );
  for (const [first, ...others] of at.values())
    for (const uplink of others)
      yield {
        severity: 'stop',
        on: onUplink(uplink),
        also: [onUplink(first!)],
        what: `${first!.name} and ${uplink.name} are on one port`,
        because: `Both are at ${portTitle(plan, plan.port.get(uplink.port!)!)} ${uplink.providerVlan === null ? 'without a tag' : `with tag ${uplink.providerVlan}`}; they cannot be told apart.`,
        remedies: [
          {
            label: `Leave the port of ${uplink.name} open`,
            operation: 'setUplinkPort',
            input: { uplink: uplink.id, port: null },
          },
        ],
      };
});

const mtu = internetCheck('uplink-mtu', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    const usual = usualMtu(uplink);
    if (uplink.mtu === null || uplink.mtu <= usual) continue;
    yield {
      severity: 'fix',
      on: onUplink(uplink),
      what: `Packets on ${uplink.name} are too long`,
      because: `Its MTU is set to ${uplink.mtu}, and ${uplink.addressing === 'pppoe' ? 'PPPoE leaves 1492 (RFC 2516)' : 'the provider’s line leaves 1500'}: pages load in part, or not at all.`,
      remedies: [setField(`Use ${usual}`, 'uplink', uplink.id, 'mtu', null, uplink.mtu)],
    };
  }
});

const addressMissing = internetCheck('uplink-address-missing', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    if (uplink.address !== null || uplink.addressing !== 'static') continue;
    yield {
      severity: 'note',
      on: onUplink(uplink),
      what: `${uplink.name} has a fixed address that nobody recorded`,
      because: 'Without it the gateway cannot be set up again after a fault.',
    };
  }
});

const kindWords = {
  shared: 'in 100.64.0.0/10 (RFC 6598), shared by customers of a provider',
  private: 'for use inside only (RFC 1918)',
  public: 'reached from everywhere',
};

const addressKind = internetCheck('uplink-address', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    if (uplink.address === null || uplink.outside === 'unknown') continue;
    const kind = kindOfAddress(uplink.address);
    if (uplink.outside === kind) continue;
    yield {
      severity: 'fix',
      on: onUplink(uplink),
      what: `The address of ${uplink.name} is ${kind}, not ${uplink.outside}`,
      because: `${formatAddress(uplink.address)} is ${kindWords[kind]}; recorded is a ${uplink.outside} address.`,
      remedies: [setField(`Record it as ${kind}`, 'uplink', uplink.id, 'outside', kind, uplink.outside)],
    };
  }
});

const addressOutside = internetCheck('uplink-network', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    const { address, network } = uplink;
    if (address === null || network === null || contains(network, address)) continue;
    const text = formatPrefix(network);
    yield {
      severity: 'fix',
      on: onUplink(uplink),
      what: `The address of ${uplink.name} is not in the network outside it`,
      because: `${formatAddress(address)} lies outside ${text}: nobody there answers it.`,
      remedies: [setField('Leave the network open', 'uplink', uplink.id, 'network', null, text)],
    };
  }
});

const dynamicName = internetCheck('dynamic-name', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    if (uplink.dynamicName === '') continue;
    const gateway = plan.device.get(uplink.device)!;
    if (outsideOf(uplink) === 'shared')
      yield {
        severity: 'fix',
        on: onUplink(uplink),
        what: `${uplink.dynamicName} leads nowhere`,
        because: 'The outside address is shared by customers of the provider; nobody gets in by it.',
        remedies: [setField('Drop the name', 'uplink', uplink.id, 'dynamicName', '', uplink.dynamicName)],
      };
    else if (uplink.updater === null)
      yield {
        severity: 'fix',
        on: onUplink(uplink),
        what: `Nobody keeps ${uplink.dynamicName} up to date`,
        because: 'When the provider gives another address, the name goes on pointing at the old one.',
        remedies: [
          {
            label: `Let ${gateway.name} do it`,
            operation: 'setUpdater',
            input: { uplink: uplink.id, updater: gateway.id },
          },
        ],
      };
  }
});

const blindUpdater = internetCheck('dynamic-name-behind-nat', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    if (uplink.dynamicName === '' || uplink.updater === null || outsideOf(uplink) === 'shared') continue;
    if (translatorsOf(uplink).length === 0) continue;
    yield {
      severity: 'note',
      on: onUplink(uplink),
      what: `${plan.device.get(uplink.updater)!.name} does not see the address that ${uplink.dynamicName} has to follow`,
      because:
        'Another router translates further out: the updater has to ask outside which address it is seen with.',
    };
  }
});

const unwatched = internetCheck('failover-unwatched', function* (plan) {
  const all = uplinksOf(plan).filter(({ enabled }) => enabled);
  for (const uplink of all) {
    // Another router’s uplink takes nothing over.
    const uplinks = all.filter(({ device }) => device === uplink.device);
    const last = Math.max(0, ...uplinks.map(({ tier }) => tier));
    const waits = uplinks.some(({ tier }) => tier > uplink.tier);
    if (!waits && !(uplinks.length > 1 && uplink.tier === last && uplinks.every(({ tier }) => tier === last)))
      continue;
    const near =
      uplink.monitor !== null && uplink.network !== null && contains(uplink.network, uplink.monitor);
    if (uplink.monitor !== null && !near) continue;
    yield {
      severity: 'fix',
      on: onUplink(uplink),
      what: near
        ? `${uplink.name} is judged by the box next to it`
        : `Nobody notices when ${uplink.name} fails`,
      because: near
        ? `${formatAddress(uplink.monitor!)} lies in ${formatPrefix(uplink.network!)}: it answers while the line beyond it is dead. Ping something in the Internet.`
        : `Nothing is pinged over it. While the cable has a signal, traffic goes on into a dead line${waits ? ', and the other uplink waits' : ': its share of what is new is lost'}.`,
    };
  }
});

export const uplinkChecks = [
  unrecorded,
  notFacing,
  portShared,
  mtu,
  addressMissing,
  addressKind,
  addressOutside,
  dynamicName,
  blindUpdater,
  unwatched,
];
