import { questionFields, typedReceiver, typedSender, typedWanted } from '../../src/core/rehearse';
import { boxOf } from '../../src/core/plan';
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
    site.do('addQuestion', { ...questionFields(asked), expected, why });
  }
}

export const rowHouseQuestions = (site: DemoSite): void =>
  ask(site, [
    ['Family', 'internet', 'HTTPS', 'delivered', 'the family is online'],
    ['Holiday flat', 'internet', 'HTTPS', 'delivered', 'visitors are online'],
    ['Holiday flat', 'Family', 'HTTPS', 'stopped', 'visitors see nothing of the house'],
    ['Family', 'inverter', 'HTTPS', 'delivered', 'the app shows what the roof makes'],
    ['internet', 'gateway', 'HTTPS', 'stopped', 'nobody configures the gateway from outside'],
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
