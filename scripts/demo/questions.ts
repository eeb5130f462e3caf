import { questionFields, typedReceiver, typedSender, typedWanted } from '../../src/core/rehearse';
import { formatAddress } from '../../src/core/address';
import { addressesOn, boxOf } from '../../src/core/plan';
import type { DemoSite } from './builder';

/** A question as it would be typed: from, to, service, expected, why. */
type Asked = readonly [string, string, string, 'delivered' | 'stopped', string];

function ask(site: DemoSite, questions: readonly Asked[]): void {
  for (const [from, to, service, expected, why] of questions) {
    const asked = {
      from: typedSender(site.plan, from),
      to: typedReceiver(site.plan, to),
      wanted: typedWanted(site.plan, service),
    };
    const { toAddress, ...fields } = questionFields(asked);
    const at = toAddress === null ? null : formatAddress(toAddress);
    site.do('addQuestion', { ...fields, toAddress: at, expected, why });
  }
}

/** The IPv6 address of an end device. */
const sixOf = (site: DemoSite, name: string): string =>
  addressesOn(site.plan, site.card(name))
    .map(({ address }) => formatAddress(address))
    .find((text) => text.includes(':'))!;

export const rowHouseQuestions = (site: DemoSite): void =>
  ask(site, [
    ['Family', 'internet', 'HTTPS', 'delivered', 'the family is online'],
    ['Holiday flat', 'internet', 'HTTPS', 'delivered', 'visitors are online'],
    ['Holiday flat', 'Family', 'HTTPS', 'stopped', 'visitors see nothing of the house'],
    ['Family', 'inverter', 'HTTPS', 'delivered', 'the app shows what the roof makes'],
    ['internet', 'gateway', 'HTTPS', 'stopped', 'nobody configures the gateway from outside'],
    ['disk-station', '2001:db8:ffff::1', 'HTTPS', 'delivered', 'the disk station gets its updates over IPv6'],
    ['internet', sixOf(site, 'disk-station'), 'tcp 445', 'stopped', 'and nobody gets at its files over IPv6'],
  ]);

export const clinicQuestions = (site: DemoSite): void =>
  ask(site, [
    ['Reception and practice', 'internet', 'HTTPS', 'delivered', 'the practice is online'],
    ['Waiting room', 'Reception and practice', 'HTTPS', 'stopped', 'waiting clients see no patient files'],
    ['Waiting room', 'gateway', 'HTTPS', 'stopped', 'nor the gateway'],
    ['run-temp-01', 'gateway', 'ping', 'delivered', 'the kennels report their temperature'],
    ['internet', 'gateway', 'SSH', 'stopped', 'nobody configures the gateway from outside'],
  ]);

export const creameryQuestions = (site: DemoSite): void =>
  ask(site, [
    ['scada-a', 'historian', 'HTTPS', 'delivered', 'the control room writes the day’s figures'],
    ['Drivers Wi-Fi', 'internet', 'HTTPS', 'delivered', 'drivers announce themselves'],
    ['Drivers Wi-Fi', 'Pasteuriser cell', 'tcp 502', 'stopped', 'no driver’s telephone reaches a machine'],
    ['Office', 'Bottling line', 'tcp 502', 'stopped', 'the office asks the exchange, not the machines'],
    ['pasteuriser', 'internet', 'HTTPS', 'stopped', 'machines do not go out'],
    ['filler', 'labeller', 'tcp 502', 'delivered', 'the line talks to itself'],
    ['compressor-01', 'condenser', 'tcp 502', 'delivered', 'the cold store keeps cold without the office'],
    ['internet', 'gateway', 'SSH', 'stopped', 'nobody configures the gateway from outside'],
    [
      'internet',
      'historian',
      'tcp 8883',
      'delivered',
      'tankers report, and are answered by the line they came in by',
    ],
    ['internet', '100.64.12.7', 'tcp 8883', 'stopped', 'by mobile nobody comes in'],
    ['gw-1', 'update-mirror', 'udp 67', 'delivered', 'the relay of the office reaches its DHCP server'],
    ['plant north', 'historian', 'HTTPS', 'delivered', 'the other plant reads the figures'],
  ]);

/** Base MAC addresses of the switches: the one of the cold store is the lowest, and no priority was ever set. */
export function creameryTrees(site: DemoSite): void {
  for (const [name, last] of [
    ['sw-a', '4C:20'],
    ['sw-b', '5D:08'],
    ['sw-c', '12:A1'],
    ['sw-d', '9A:44'],
    ['sw-f', '77:31'],
  ] as const) {
    const box = boxOf(site.plan, site.device(name))!;
    site.edit('box', box.id, { baseMac: `02:00:5E:00:${last}` });
  }
}
