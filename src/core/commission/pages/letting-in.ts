import { formatAddress, formatPrefix } from '../../address';
import { type Access, type Plan, type Security, boxOf } from '../../plan';
import { bindingRows, ruleScheduleOf } from '../../formats';
import {
  accessAt,
  accessWords,
  hostWords,
  methodWords,
  factoryPortGuards,
  guardsOf,
  noVlanGuards,
  portGuardOf,
  serversFor,
  actingPort,
} from '../../model/guards';
import { portsOf } from '../../model/wiring';
import { namesOn, networksAt, radiosOf, securityWords } from '../../model/wireless';
import { type SettingLine, differing, inOneLine, line, vlanText } from './page';

/** What passes and who is let in: rules, networks on the air, guards. */

/** The lines a box has to see to, by their numbers on the rule schedule. */
export function ruleLines(plan: Plan, device: string, today: string | null): SettingLine[] {
  if (boxOf(plan, device)?.filter === 'none') return [];
  const translated = [...plan.translation.values()]
    .filter((one) => one.device === device)
    .map(({ subnet, outside }) =>
      line(
        `1:1 translation of ${formatPrefix(plan.subnet.get(subnet)!.prefix)}`,
        `to ${formatPrefix(outside)}`,
      ),
    );
  const lines = ruleScheduleOf(plan, today)
    .map((one, i) => ({ ...one, number: i + 1 }))
    .filter(({ devices }) => devices === null || devices.includes(device));
  // That everything else is refused is no work of its own where nothing is allowed.
  if (!lines.some(({ devices }) => devices !== null)) return translated;
  const said = lines.map(({ number, action, from, to, services, ports, log }) =>
    line(
      `Rule ${number}`,
      `${action} ${from} → ${to}: ${services}${ports === '' ? '' : ` (${ports})`}${log ? ', logged' : ''}`,
    ),
  );
  return [...translated, ...said];
}

/** What a network on the air is told besides its name. */
const OF_NETWORK = { isolated: false, portal: false, hidden: false, schedule: '', minimumRate: '1' };
/** What a radio is told. */
const OF_RADIO = { channel: null, width: '', power: null, interval: 100 };

export function wirelessLines(plan: Plan, device: string): SettingLine[] {
  const networks = networksAt(plan, device).map((ssid) => {
    const more = inOneLine(differing(plan, 'ssid', ssid, OF_NETWORK));
    const key = needsKey(ssid.security)
      ? `; its key ${ssid.keyKept === '' ? 'is kept by the customer' : `is kept: ${ssid.keyKept}`}`
      : '';
    const segment = ssid.vlan === null ? 'no segment' : vlanText(plan, ssid.vlan);
    const security = securityWords[ssid.security];
    return line(
      `Network ${ssid.name}`,
      `${segment}, ${security}, ${ssid.bands.join(' and ')} GHz${more === '' ? '' : `, ${more}`}${key}`,
    );
  });
  const radios = radiosOf(plan, device).map((radio) =>
    line(
      `Radio ${radio.band} GHz`,
      radio.enabled
        ? `${radio.channel === null ? 'channel by itself' : ''}${inOneLine(differing(plan, 'radio', radio, OF_RADIO))}, sends ${
            namesOn(plan, radio)
              .map(({ name }) => name)
              .join(', ') || 'no network'
          }`
        : 'off',
    ),
  );
  return [...networks, ...radios];
}
const needsKey = (security: Security): boolean => security === 'wpa-mixed' || security.endsWith('personal');

/** What a way in tells a port besides what is said in words of its own. */
const OF_ACCESS = {
  period: null,
  tries: null,
  takesVlan: false,
  takesList: false,
  services: [],
  guest: null,
  failed: null,
  critical: null,
  again: null,
  accounting: false,
};
const OF_SERVER = {
  port: null,
  accounting: null,
  change: null,
  timeout: null,
  tries: null,
  dead: 0,
  tester: '',
};

export function guardLines(plan: Plan, device: string): SettingLine[] {
  const segments = [...guardsOf(plan, device)].map(([vid, guard]) =>
    line(`Guards in VLAN ${vid}`, inOneLine(differing(plan, 'vlanGuard', guard as never, noVlanGuards))),
  );
  const bindings = bindingRows(plan, device).map(({ vid, address, mac, device: host, port }) =>
    line(
      `Binding in VLAN ${vid}`,
      `${address} for ${host}, ${mac || 'MAC address not recorded'}${port === '' ? '' : `, at ${port}`}`,
    ),
  );
  const asked = new Map<string, Access>();
  const ports = portsOf(plan, device).flatMap(({ id, number }) => {
    const record = portGuardOf(plan, id);
    if (!record || actingPort(plan, id) !== id) return [];
    const access = accessAt(plan, id);
    if (access) asked.set(access.id, access);
    const { access: _, ...held } = factoryPortGuards;
    const lines = inOneLine(differing(plan, 'portGuard', record, held));
    const said = [lines, access ? `way in ${access.name}` : ''].filter(Boolean).join(', ');
    return said === '' ? [] : [line(`Port ${number}`, said)];
  });
  const ways = [...asked.values()].map((access) =>
    line(
      `Way in ${access.name}`,
      `asks by ${methodWords[access.methods]}, lets in ${hostWords[access.hosts]}, ${accessWords[access.mode]}, ${inOneLine(differing(plan, 'access', access, OF_ACCESS))}`,
    ),
  );
  const servers = new Set([...asked.values()].flatMap((access) => serversFor(plan, access)));
  const told = [...servers].map((server) => {
    const { address } = plan.address.get(server.address)!;
    const kept = server.secretKept === '' ? 'kept by the customer' : `kept: ${server.secretKept}`;
    return line(
      `Authentication server ${formatAddress(address)}`,
      `${inOneLine(differing(plan, 'radius', server, OF_SERVER))}; its secret is ${kept}`,
    );
  });
  return [...segments.filter(({ value }) => value !== ''), ...bindings, ...ports, ...ways, ...told];
}
